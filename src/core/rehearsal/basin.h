// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <opencv2/core/mat.hpp>
#include <vector>

#include "core/rehearsal/camera.h"

namespace fin {

/// How the pool round a rehearsal looks.
struct BasinLook {
  double surface_mm = 1000.0;  ///< over the middle of the picture; a camera under it sees it from below
  double floor_mm = -380.0;
  double wallBehind_mm = 420.0;  ///< behind the lure's plane
  double tile_mm = 100.0;
  double caustics = 0.10;  ///< share of the light in the bright lines that dance over everything
  double haze = 0.35;      ///< how much of the water's colour lies over what is a metre farther off
};

/// A tiled pool as the camera sees it without the lure. Model: a wall square to the view (from above: the
/// floor is that wall), a floor, and a surface that mirrors both from below, rippled; what is farther off
/// fades into the water's colour. Walls are seen straight, as if through no window.
class Basin {
 public:
  /// `travel_mm_s`: of a camera that swims along, to the right, for so long.
  Basin(const BasinLook& look, const RehearsalCamera& camera, double travel_mm_s = 0.0,
        double length_s = 0.0);

  [[nodiscard]] cv::Mat pictureAt(double time_s) const;
  /// Above this row the picture is the surface's; 0 where it is not in view.
  [[nodiscard]] int surfaceRow() const { return surfaceRow_; }
  [[nodiscard]] const BasinLook& look() const { return look_; }
  /// What the mirror shows moves with its ripples; for everything above the surface's row.
  void ripple(cv::Mat& picture, double time_s) const;
  /// The unlit picture, to paint on what hangs in the pool: CV_8UC3, red first.
  [[nodiscard]] cv::Mat& still() { return still_; }

 private:
  /// Where a place in the picture looks.
  struct Meets {
    double u_mm = 0.0;  ///< on the tiles, across
    double v_mm = 0.0;
    double beyond_mm = 0.0;  ///< behind the lure's plane
    double tone = 1.0;
  };
  [[nodiscard]] Meets meets(double x_px, double y_px) const;
  void paintTiles();

  /// How far the wall has gone by.
  [[nodiscard]] double passed_px(double time_s) const;

  BasinLook look_;
  RehearsalCamera camera_;
  double travel_mm_s_;
  int surfaceRow_ = 0;
  cv::Mat still_;
  std::vector<Meets> cells_;  ///< of the coarse grid on which light dances
};

}  // namespace fin
