// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <opencv2/core/mat.hpp>
#include <vector>

#include "core/tracking/body/axis_pose.h"

namespace fin {

/// A part of a reduced picture, as it is seen by what looks for a body in it.
struct BodyView {
  using Planes = std::array<cv::Mat, 3>;  ///< CV_32FC1 each

  cv::Point corner;  ///< of the part, in the picture
  cv::Mat evidence;  ///< CV_32FC1: −1 surely not the body, 1 surely the body, 0 not known
  Planes look;       ///< brightness and two colours, without the light of the surroundings

  [[nodiscard]] BodyView part(const cv::Rect& box) const;
};

/// What a body looks like, laid out along its axis.
///
/// Model: a flat shape that shifts, turns and is foreshortened along its axis. What moves against the rigid
/// body, as hooks and a soft tail do, has little say once several frames were averaged.
class BodyShape {
 public:
  /// From a view in which the body is at a known pose: what hangs together with the axis belongs to it.
  BodyShape(const BodyView& view, const AxisPose& pose);

  /// A further view of the same body, to be averaged in.
  void add(const BodyView& view, const AxisPose& pose);
  /// Takes in what was added since, with the first view counting `firstShare` of the whole.
  void average(double firstShare);

  struct Fit {
    AxisPose pose;
    double agreement = 0.0;  ///< of the evidence with the shape: 1 is as well as could be, 0 as anywhere
    double likeness = 0.0;   ///< of the inner look, −1 … 1; tells one end from the other
  };
  [[nodiscard]] Fit judged(const BodyView& view, const AxisPose& pose) const;
  /// The best pose near one, by Levenberg–Marquardt on the difference of evidence and shape. `held` is how
  /// strongly the length is held to `usualLength_px`.
  enum class Care { Quick, Thorough };
  [[nodiscard]] Fit fitted(const BodyView& view, const AxisPose& from, double usualLength_px, double held,
                           Care care) const;

  [[nodiscard]] double length_px() const { return length_px_; }
  /// About a pose, the part of the picture that the shape can cover.
  [[nodiscard]] cv::Rect reach(const AxisPose& pose, double margin_px) const;

 private:
  struct Cell {
    float u = 0.0F;  ///< along, 0 at the tail and 1 at the nose
    float v = 0.0F;  ///< across, px
    float shape = 0.0F;
    std::array<float, 3> look{};
  };
  class Misfit;
  static constexpr std::size_t kPlanes = 4;  ///< evidence, then the look
  void choose(const std::array<cv::Mat, kPlanes>& from);
  void thinOut(const std::vector<Cell>& all, std::size_t most, std::vector<Cell>& to) const;

  double length_px_;
  int rows_ = 0;
  int columns_ = 0;
  std::array<cv::Mat, kPlanes> first_;
  std::array<cv::Mat, kPlanes> sum_;
  int added_ = 0;
  std::vector<Cell> some_;  ///< evenly out of those that tell
  std::vector<Cell> few_;
  std::vector<Cell> inner_;
};

}  // namespace fin
