// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/tracking: one way of the outline through the frames.
#pragma once

#include <optional>
#include <span>

#include "core/tracking/outline/silhouette.h"

namespace fin {

/// Mean move of the marks between two frames of the window; none where no mark is seen in both.
std::optional<PixelPoint> marksMoved(const Track& track, std::size_t from, std::size_t to);
/// Makes the inside of a polygon 255.
void fill(cv::Mat& mask, const std::vector<PixelPoint>& polygon, cv::Point origin);
/// 255 where nothing is to be followed; empty where there is no such place.
cv::Mat maskOf(std::span<const HiddenRegion> hidden, std::size_t frame, const Picture& picture);

/// One journey of the outline from frame to frame, in either direction of time. A copy goes on from the same
/// place on its own.
class OutlineJourney {
 public:
  OutlineJourney(Backdrop& backdrop, const Track& track, std::span<const HiddenRegion> hidden, Expected start,
                 std::size_t frame, SegmentationCue by)
      : backdrop_(&backdrop),
        track_(&track),
        hidden_(hidden),
        last_(std::move(start)),
        lastFrame_(frame),
        by_(by) {}

  OutlineSample visit(std::size_t frame, const Picture& picture);

  /// Only the largest part is followed: for going from frame to frame in long steps.
  void followOnePart() { last_.inOnePart = true; }
  /// From where it is it goes on by the same means as another.
  void goOnAs(const OutlineJourney& other) {
    last_.inOnePart = other.last_.inOnePart;
    by_ = other.by_;
  }
  /// Where it was seen last.
  [[nodiscard]] cv::Rect bounds() const { return last_.bounds; }
  [[nodiscard]] std::size_t lastFrame() const { return lastFrame_; }

 private:
  [[nodiscard]] PixelPoint backgroundAt(std::size_t frame) const;
  OutlineSample lost(const Picture& picture, const Expected& expected);

  Backdrop* backdrop_;
  const Track* track_;
  std::span<const HiddenRegion> hidden_;
  Expected last_;
  std::size_t lastFrame_;
  SegmentationCue by_;
  bool gone_ = false;
  PixelPoint velocity_;
  bool moves_ = false;  ///< its velocity is known
  std::optional<PixelPoint> knownCentre_;
  double area_ = 0.0;
  double angle_ = 0.0;
};

}  // namespace fin
