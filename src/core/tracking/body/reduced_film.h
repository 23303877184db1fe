// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <map>
#include <opencv2/core/mat.hpp>
#include <set>

#include "core/footage/frame_source.h"
#include "core/units/job_control.h"
#include "core/units/points.h"

namespace fin {

/// Frames of a clip, made so small that the lure is a few dozen pixels long in them: enough to see where the
/// body lies and how, in a small part of the memory.
struct ReducedFilm {
  double scale = 1.0;                     ///< reduced pixels per pixel of the clip
  std::map<std::size_t, cv::Mat> frames;  ///< CV_8UC3: luma and the two colour differences, by frame number

  [[nodiscard]] PixelPoint toReduced(PixelPoint p) const {
    return {(p.x_px + 0.5) * scale - 0.5, (p.y_px + 0.5) * scale - 0.5};
  }
  [[nodiscard]] PixelPoint toFull(PixelPoint p) const {
    return {(p.x_px + 0.5) / scale - 0.5, (p.y_px + 0.5) / scale - 0.5};
  }
};

/// Frames of another source; of every fourth that is asked for a reduced one is kept, while `room_bytes`
/// lasts: then only of every eighth, and so on. Others are filmed where they are wanted.
class FilmingFrameSource : public FrameSource {
 public:
  /// `source` must outlive it. The body is `body_px` long in the clip's own pixels; nothing is kept at 0.
  FilmingFrameSource(FrameSource& source, double body_px, std::size_t room_bytes);

  [[nodiscard]] std::size_t frameCount() const override { return source_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return source_.timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override;
  [[nodiscard]] const ReducedFilm& film() const { return film_; }
  /// Reads those of some frames again that are not in the film yet; as many as there is room for, evenly, but
  /// for what cannot be read. Stopped, it has only some of them.
  void filmAlso(const std::set<std::size_t>& frames, const JobControl& job = {});

 private:
  void film(std::size_t frame, const Picture& picture);
  void thin();

  FrameSource& source_;
  std::size_t room_bytes_;
  std::size_t every_ = 4;  ///< doubled where there is no room
  std::size_t held_bytes_ = 0;
  ReducedFilm film_;
};

}  // namespace fin
