// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/tracking: a body cut out of a picture and laid out along its axis.
#pragma once

#include <opencv2/core/mat.hpp>
#include <optional>
#include <utility>
#include <vector>

#include "core/footage/picture.h"
#include "core/tracking/track.h"

namespace fin {

/// A silhouette's long axis in the picture. One end is called the front, whichever it is.
struct BodyAxis {
  PixelPoint middle;     ///< of the silhouette
  PixelPoint ahead;      ///< of length 1, to the front
  double rear_px = 0.0;  ///< along from the middle
  double length_px = 0.0;

  /// Its other end called the front.
  [[nodiscard]] BodyAxis turnedRound() const {
    return {middle, ahead * -1.0, -(rear_px + length_px), length_px};
  }
};

/// A silhouette turned so that its long axis is level, and sized so that it is 160 px long. Shares along run
/// from 0 at the rear to 1 at the front.
struct LaidOutBody : BodyAxis {
  static constexpr int kColumns = 192;
  static constexpr int kRows = 96;
  static constexpr double kLength = 160.0;
  static constexpr double kRoom = 0.1;  ///< shares of the length before and behind it

  cv::Mat look;                ///< CV_32FC3: lightness and two colours
  cv::Mat mask;                ///< CV_8UC1
  std::vector<double> width;   ///< by column, px of this view
  std::vector<double> centre;  ///< by column, the row midway between its sides

  [[nodiscard]] static double shareAt(double column) { return (column + 0.5) / kLength - kRoom; }
  [[nodiscard]] static int columnAt(double share) { return cvRound((share + kRoom) * kLength - 0.5); }
  [[nodiscard]] PixelPoint inPicture(double column, double row) const;
  /// Column and row of a place in the picture.
  [[nodiscard]] std::pair<double, double> onBody(PixelPoint at) const;
  /// Its other end called the front.
  [[nodiscard]] LaidOutBody turnedRound() const;
  /// Mean width about a share of the length.
  [[nodiscard]] double widthAt(double share) const;
};

/// Without hooks and line. None where the silhouette is too small to tell anything.
std::optional<BodyAxis> longAxisOf(const OutlineSample& outline);
LaidOutBody laidOut(const Picture& picture, const OutlineSample& outline, const BodyAxis& axis);

/// −1 … 1: how alike two are in look and shape.
double alikeness(const LaidOutBody& a, const LaidOutBody& b);

/// A spot that differs from the body around it.
struct BodySpot {
  double strength = 0.0;
  double share = 0.0;  ///< along
  double column = 0.0;
  double row = 0.0;
};
/// The most striking spots near the body's middle line, strongest first.
std::vector<BodySpot> spotsOn(const LaidOutBody& body, double fromShare, double toShare, std::size_t most);

}  // namespace fin
