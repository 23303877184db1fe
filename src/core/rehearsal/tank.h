// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <optional>
#include <random>
#include <span>
#include <vector>

#include "core/footage/frame_source.h"
#include "core/rehearsal/basin.h"
#include "core/rehearsal/camera.h"
#include "core/rehearsal/lure.h"
#include "core/rehearsal/lure_painter.h"
#include "core/tracking/track.h"

namespace fin {

/// What a rehearsal sounds like: a hiss, and knocks on the tank that die away.
struct RehearsalSound {
  double hiss = 0.004;           ///< root mean square, full scale 1
  double gain = 1.0;             ///< of the knocks, as this camera hears them
  double tone_Hz = 900.0;        ///< of the knocks
  std::vector<double> knocks_s;  ///< true times
};

/// All that makes one rehearsal clip. Everything drawn at random comes from `seed`.
struct RehearsalScene {
  LureBuild lure;
  Motion motion = StraightPull{};
  RehearsalCamera::Setup camera;
  Hertz rate{120.0};  ///< of capture
  Seconds length{3.0};
  double exposure = 0.3;  ///< share of a frame's time that the shutter is open
  double noise_grey = 2.0;
  double dancingLight = 0.06;  ///< share of the light that moves
  int specks = 40;
  double ruler_mm = 400.0;         ///< a ruler near the picture's lower edge; none at 0
  double rulerBehind_mm = 0.0;     ///< how far it hangs behind the lure's plane; negative for before it
  std::optional<BasinLook> basin;  ///< a pool round the lure; a plain wall behind it where there is none
  std::optional<RehearsalSound> sound;
  Seconds begun{0.0};       ///< when this camera was started, on the motion's clock
  int quality = 20;         ///< of its clip, constant rate factor: smaller is better
  double chase_mm_s = 0.0;  ///< of a camera that swims along; the motion is then what it sees of the lure
  unsigned seed = 1;
};

/// A simulated tank seen by a simulated camera: frames as from a clip, with the truth known.
///
/// Model: a plain lure of ellipsoids, or one with all that its kind has (LureShape), under light from above;
/// a tiled wall behind, or a pool (BasinLook); light that dances, specks that drift; exposure is averaged
/// over up to five instants, edges over 2 × 2 samples; grey noise is added last. Not there: shadows, bubbles,
/// a wall seen through a window. Whatever it looks like, marks lie where the motion puts them. The same seed
/// gives the same frames in any order.
class RehearsalTank : public FrameSource {
 public:
  explicit RehearsalTank(RehearsalScene scene);

  [[nodiscard]] std::size_t frameCount() const override;
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override;
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override;

  /// The middle of the exposure: the instant that a frame stands for, on the motion's clock.
  [[nodiscard]] Seconds instantOf(std::size_t frame) const;
  [[nodiscard]] PixelPoint markAt(MarkName mark, std::size_t frame) const;
  [[nodiscard]] PixelPoint markAtTime(MarkName mark, Seconds instant) const;
  /// How much of the picture the lure covers, as it is painted: pixels, those at its rim in part.
  [[nodiscard]] double lureArea_px2(std::size_t frame) const;
  /// The sound at true times from the first frame on; samples of full scale 1. Silence without a sound.
  [[nodiscard]] std::vector<float> soundBetween(Seconds from, Seconds to, double rate_Hz) const;
  /// True places of the marks in every frame; not seen where they are outside the picture.
  [[nodiscard]] Track trueTrack(std::span<const MarkName> marks) const;
  /// The ruler's two ends in the picture.
  [[nodiscard]] std::pair<PixelPoint, PixelPoint> rulerEnds() const;
  [[nodiscard]] const RehearsalScene& scene() const { return scene_; }

  /// The picture (CV_8UC3, red first) of any instant, without the camera's noise.
  [[nodiscard]] cv::Mat pictureAt(Seconds instant) const;
  void addNoise(cv::Mat& picture, std::size_t frame) const;
  /// Red, green, blue and the share covered (CV_32FC4) of the part of the picture that the lure touches.
  struct Painted {
    cv::Rect box;
    cv::Mat paint;
  };
  [[nodiscard]] Painted paintedLure(Seconds instant) const;
  static void layOver(cv::Mat& picture, const Painted& painted);

 private:
  [[nodiscard]] int instantsAt(Seconds instant) const;
  /// The i-th of so many instants, spread evenly over one exposure.
  [[nodiscard]] Seconds exposed(Seconds instant, int i, int instants) const;
  void paintWall();
  void paintRuler();
  [[nodiscard]] cv::Mat lit(double time_s) const;
  void addMirrorImage(cv::Mat& picture, double time_s) const;
  [[nodiscard]] Painted paintedShape(Seconds instant) const;
  void addPaint(cv::Mat& sum, const cv::Rect& box, const std::vector<PosedPart>& parts, float share) const;
  [[nodiscard]] cv::Rect boxOf(const std::vector<PosedPart>& parts) const;
  void paintSpecks(cv::Mat& picture, double time_s) const;

  RehearsalScene scene_;
  RehearsalCamera camera_;
  PlayedMotion motion_;
  std::optional<LurePainter> shaped_;  ///< none for a plain lure
  std::optional<Basin> basin_;
  cv::Mat wall_;                    ///< CV_8UC3, red first; of a tank without a basin
  std::vector<signed char> grain_;  ///< noise to be cut from at random places
};

}  // namespace fin
