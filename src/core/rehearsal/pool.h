// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/rehearsal/tank.h"

namespace fin {

/// What a real pool adds to a clean tank. Everything is off by default.
struct PoolDefects {
  double caustics = 0.0;         ///< share of the light in the bright lines that dance over everything
  double haze = 0.0;             ///< share of the contrast that is lost
  double flicker = 0.0;          ///< share of the light
  double flicker_Hz = 100.0;     ///< as seen by a shutter that is open for an instant
  double exposureStep = 0.0;     ///< share of the light that is there more in the clip's second half
  double whiteBalanceDrift = 0;  ///< share by which red grows and blue fades over the clip
  double sway_px = 0.0;          ///< about the middle, each way: a hand
  double carried_px = 0.0;       ///< to the side, evenly over the clip: nobody holds it
  Seconds rollingShutter{0.0};   ///< from the first row to the last
  bool leaf = false;             ///< drifts across the lure's way, before it
  bool leader = false;           ///< a line before the nose
  double mirrorAbove_px = 0.0;   ///< height in the picture of a surface that mirrors the lure; none at 0
  bool secondLure = false;       ///< another one of the same build crosses the other way
};

/// A rehearsal tank as a pool: the same lure, seen through all that. Plain pictures of the real things: a
/// caustic is a crest of crossing waves, a leaf an ellipse, a mirror image the picture turned over.
class RehearsalPool : public FrameSource {
 public:
  RehearsalPool(RehearsalScene scene, const PoolDefects& defects);

  [[nodiscard]] std::size_t frameCount() const override { return tank_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return tank_.timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override;

  /// How far the camera moved the picture in a frame.
  [[nodiscard]] PixelPoint swayAt(std::size_t frame) const;
  /// Where a mark lies at a frame's instant, seen from where the camera is then.
  [[nodiscard]] PixelPoint markAt(MarkName mark, std::size_t frame) const;
  [[nodiscard]] const RehearsalTank& tank() const { return tank_; }

 private:
  [[nodiscard]] cv::Mat pictureAt(Seconds instant) const;
  void addLeader(cv::Mat& picture, Seconds instant) const;
  void addLeaf(cv::Mat& picture, Seconds instant) const;
  void addOtherLure(cv::Mat& picture, Seconds instant) const;
  void addMirror(cv::Mat& picture) const;
  void changeLight(cv::Mat& picture, Seconds instant) const;

  RehearsalTank tank_;
  PoolDefects defects_;
};

}  // namespace fin
