// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <memory>
#include <opencv2/core/mat.hpp>
#include <span>

#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

struct ClipWriterOptions {
  int width_px = 0;
  int height_px = 0;
  Hertz rate{30.0};  ///< nominal; every frame carries its own time stamp all the same
  int group = 120;   ///< frames from key frame to key frame
  int bFrames = 2;
  int quality = 20;           ///< constant rate factor: smaller is better
  int clockwiseTurn_deg = 0;  ///< written as a note to the player, the picture itself is not turned
  int soundRate_Hz = 0;       ///< one channel of sound beside the picture; none at 0
  bool forShowing = false;    ///< its colours are stated, and it plays from its first bytes; made faster
};

/// Writes frames as a clip (H.264 where the encoder is there, else MPEG-4 part 2; MJPEG in .avi, VP9 in
/// .webm; sound as AAC, or Opus in .webm, which wants 48000 samples a second). The container follows from the
/// file's ending. Used by the rehearsal tank in place of a camera, and for what is published. Errors:
/// NotWritable with the file's name.
class ClipWriter {
 public:
  static Result<std::unique_ptr<ClipWriter>> create(const std::filesystem::path& path,
                                                    ClipWriterOptions options);
  virtual ~ClipWriter() = default;

  /// CV_8UC3, red first, or CV_8UC4, blue first (its size even), of the size promised and all of one kind.
  /// Times must rise.
  [[nodiscard]] virtual Result<void> add(const cv::Mat& picture, Seconds time) = 0;
  /// The next samples of the sound, full scale 1; the first belongs to time 0.
  [[nodiscard]] virtual Result<void> addSound(std::span<const float> samples) = 0;
  /// Writes what is still held back and closes the file.
  [[nodiscard]] virtual Result<void> finish() = 0;
};

}  // namespace fin
