// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <filesystem>
#include <functional>
#include <opencv2/core/mat.hpp>
#include <string>

#include "core/footage/clip_writer.h"
#include "core/footage/picture.h"
#include "core/tracking/track.h"

namespace fin::test {

/// 160 × 96 pixels, a frame's own number on it as a row of black and white blocks.
cv::Mat numbered(std::size_t n);
std::size_t numberIn(const Picture& picture);

/// Writes numbered frames at 50 a second, or at times of their own. `first` is the first frame's number.
struct NumberedFilm {
  std::size_t frames = 150;
  std::size_t first = 0;
  int bFrames = 2;
  std::function<double(std::size_t)> time_s = [](std::size_t n) { return static_cast<double>(n) / 50.0; };
};
void film(const std::filesystem::path& file, const NumberedFilm& what = {});

/// Runs the ffmpeg program; false when it fails.
bool ffmpeg(const std::string& arguments);

/// Nose and tail over seven seconds of it at 50 frames a second: two twitches, a pull, a wait, a fall. The
/// film shows nothing of it.
Track severalThings();

}  // namespace fin::test
