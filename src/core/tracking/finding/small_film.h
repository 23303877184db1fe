// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/tracking: some frames of a clip made small, and what lies behind in them.
#pragma once

#include <array>
#include <opencv2/core/mat.hpp>
#include <optional>
#include <vector>

#include "core/footage/frame_source.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

/// CV_32FC1: brightness over its surroundings, and the shares of two colours, so that light that dances
/// counts little.
using Planes = std::array<cv::Mat, 3>;

/// Frames spread evenly over a window.
struct SmallFilm {
  std::vector<std::size_t> frames;
  std::vector<Planes> planes;
  std::vector<PixelPoint> moved;  ///< what lies behind, in these small pixels, since the first of the frames
  double smaller = 1.0;           ///< small pixels per pixel of the picture
};

struct FilmWanted {
  FrameStretch window;
  bool cameraMoves = false;
  std::optional<std::size_t> also = std::nullopt;  ///< a frame of the window that must be among them
};

/// Where the camera moves, what lies behind is followed from frame to frame as
/// scenery.h has it. Errors: Cancelled; Unreadable.
Result<SmallFilm> smallFilm(FrameSource& source, const FilmWanted& wanted, const JobControl& job);

/// What lies behind, and one over how far it scatters.
struct Behind {
  Planes middle;
  Planes overScatter;
};
/// Of all frames, where the camera stands.
Behind behindAll(const SmallFilm& film);
/// Of the i-th frame, from those whose background has moved far enough that the lure is elsewhere, laid over
/// it. Where none of them shows it, it is as the frame itself: nothing stands out there.
Behind behindFrame(const SmallFilm& film, std::size_t i);

}  // namespace fin
