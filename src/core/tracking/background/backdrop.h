// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <mutex>
#include <opencv2/core/mat.hpp>
#include <set>
#include <vector>

#include "core/footage/picture.h"
#include "core/units/points.h"

namespace fin {

/// What lies behind the lure, learnt from frames of the clip itself, each where the lure is not.
///
/// Model: in luma and the two colour differences, the median over up to eleven frames and, as scatter, the
/// scaled median absolute deviation (P. Rousseeuw & C. Croux, Alternatives to the median absolute deviation,
/// 1993), smoothed over the neighbourhood: light that changes over a hand's breadth is divided out
/// (`lightOver`), what dances finer shows as scatter in luma. Where the background moves
/// in the picture the frames are laid over each other by its shift. It misleads where the lure rests in every
/// frame (nothing is known there), and where the background turns or grows.
/// Worked out tile by tile, where it is asked for. Several threads may ask for views at once.
class Backdrop {
 public:
  struct Sample {
    std::size_t frame = 0;
    Picture picture;
    PixelPoint moved;  ///< of the background in the picture, since the first frame of the window
    cv::Rect lure;     ///< what it hides; empty where that is not known
  };

  explicit Backdrop(bool moving) : moving_(moving) {}
  void add(Sample sample) { samples_.push_back(std::move(sample)); }
  [[nodiscard]] const std::vector<Sample>& samples() const { return samples_; }
  /// Says anew what the lure hides in the samples, one rectangle each.
  void hide(const std::vector<cv::Rect>& lures);

  /// Luma and the two colour differences, as CV_32FC1 each.
  using Planes = std::array<cv::Mat, 3>;
  struct View {
    Planes middle;
    Planes scatter;  ///< never less than the camera's noise
    cv::Mat known;   ///< CV_8UC1, 255 where the rest means something
  };
  /// What lies behind a box of the picture in a frame. Not to be written to.
  [[nodiscard]] View view(const cv::Rect& box, PixelPoint moved, std::size_t frame);

 private:
  using Key = std::array<std::int64_t, 3>;  ///< column, row, stretch of time
  const View& tile(const Key& key);
  [[nodiscard]] View stillView(const cv::Rect& box);
  [[nodiscard]] View learnt(const Key& key) const;

  bool moving_;
  std::vector<Sample> samples_;
  std::unique_ptr<std::mutex> learning_ = std::make_unique<std::mutex>();  ///< of the tiles below
  std::map<Key, View> tiles_;                                              ///< of a moving background
  View still_;  ///< of the whole picture, where the background stands
  std::set<Key> stillKnown_;
};

/// How much brighter a picture is than what lies behind, pixel by pixel, averaged over some way around
/// (CV_32FC1, 1 where it is the same). Only where `counts` is not 0, so that the lure has no say.
/// Of luma alone: `luma` is CV_8UC1, `middle` CV_32FC1.
cv::Mat lightOver(const cv::Mat& luma, const cv::Mat& middle, const cv::Mat& counts);

}  // namespace fin
