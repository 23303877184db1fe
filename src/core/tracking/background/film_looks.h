// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <opencv2/core/mat.hpp>
#include <optional>
#include <vector>

#include "core/tracking/background/scenery.h"
#include "core/tracking/body/reduced_film.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

/// Brightness evened out over its surroundings, so that light that changes slowly over the picture has no
/// say; of a frame that is first made `smaller` times smaller.
cv::Mat evened(const cv::Mat& frame, int smaller);

/// Goes through every so many of the frames of a film that lie in a track's window. `see` is given their
/// index in the window, themselves evened and made `smaller`, and where the lure is in that.
using SeeFrame = std::function<void(std::size_t, const cv::Mat&, const LureSurroundings&)>;
void lookThrough(const ReducedFilm& film, const Track& track, std::size_t every, int smaller,
                 const JobControl& job, const SeeFrame& see);

/// What one frame tells of where the scenery has gone: by all details, and by those of either half.
struct Shift {
  std::size_t index = 0;  ///< of the frame in the window
  std::optional<PixelPoint> whole;
  std::optional<std::array<PixelPoint, 2>> halves;
};
Shift shiftOf(const SceneryFlow& flow, const LureSurroundings& lure, cv::Size size);

/// Between frames in which it is known, the straight way from one to the next. All must tell of the whole.
std::vector<MarkSample> everyFrame(const std::vector<Shift>& shifts, std::size_t frames, double pxPerReduced);

}  // namespace fin
