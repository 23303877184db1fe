// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>
#include <vector>

#include "core/calibration/lens_board.h"

namespace fin {

/// A chequered board carried about before a camera whose lens is known: what a lens calibration is tried on.
struct BoardScene {
  LensBoard board;
  Lens lens{900.0, 900.0, 640.0, 360.0, {-0.22, 0.06, 0.0, 0.0, 0.0}};
  int width_px = 1280;
  int height_px = 720;
  Hertz rate{30.0};
  std::size_t frames = 90;
  double mostTilt_deg = 38.0;  ///< 0 for a board that is always held square to the view
  double reach = 1.0;          ///< how far into the picture's corners it is carried, 0 … 1
  double noise_grey = 2.0;
  unsigned seed = 1;
};

/// Model: a flat board, evenly lit, pinhole with the lens's distortion, edges over 3 × 3 samples, grey noise.
class BoardFilm : public FrameSource {
 public:
  explicit BoardFilm(BoardScene scene) : scene_(scene) {}

  [[nodiscard]] std::size_t frameCount() const override { return scene_.frames; }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override {
    return Seconds(static_cast<double>(frame) / scene_.rate.value());
  }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override;
  /// True places of the inner corners, row after row.
  [[nodiscard]] std::vector<PixelPoint> cornersAt(std::size_t frame) const;

 private:
  struct Pose {
    Eigen::Matrix3d turn;
    Eigen::Vector3d middle_mm;
  };
  void castRays();
  [[nodiscard]] Pose poseAt(std::size_t frame) const;

  BoardScene scene_;
  std::vector<Eigen::Vector2f> rays_;  ///< of every sample of every pixel, on the plane at unit distance
};

}  // namespace fin
