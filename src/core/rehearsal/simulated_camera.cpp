// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/simulated_camera.h"

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr double kUsualSpeed_mm_s = 260.0;
constexpr double kHalfView_mm = 480.0;  ///< of the pull that is shown
constexpr double kDrop_mm = 480.0;
constexpr double kSpread = 0.04;  ///< from pass to pass

LureBuild buildFor(const Model& model) {
  const double length = model.length_mm.value_or(90.0);
  switch (model.family) {
    case Family::SoftPlastic:
      return {.length_mm = 0.64 * length,
              .height_mm = 0.17 * length,
              .width_mm = 0.12 * length,
              .tail_mm = 0.38 * length,
              .back = {70.0, 95.0, 60.0},
              .belly = {215.0, 205.0, 150.0},
              .bands = {120.0, 70.0, 40.0},
              .bandCount = 4};
    case Family::Jerkbait:
      return {.length_mm = length,
              .height_mm = 0.22 * length,
              .width_mm = 0.14 * length,
              .lip_mm = 0.12 * length};
    case Family::Spoon:
      return {.length_mm = length,
              .height_mm = 0.38 * length,
              .width_mm = 0.08 * length,
              .back = {190.0, 150.0, 70.0},
              .belly = {235.0, 215.0, 150.0},
              .bands = {90.0, 40.0, 30.0},
              .bandCount = 3};
    case Family::BladedBait:
      return {.length_mm = length,
              .height_mm = 0.29 * length,
              .width_mm = 0.24 * length,
              .tail_mm = 0.5 * length,
              .lip_mm = 0.15 * length,
              .back = {40.0, 50.0, 70.0},
              .belly = {150.0, 160.0, 175.0},
              .bands = {200.0, 190.0, 90.0},
              .bandCount = 4};
  }
  return {};
}

struct Chance {
  explicit Chance(unsigned seed) : random(seed) {}
  double around(double value) { return value * (1.0 + kSpread * normal(random)); }
  std::mt19937 random;
  std::normal_distribution<double> normal{0.0, 1.0};
};

StraightPull pullFor(const Model& model, const PlannedPass& pass, Chance& chance, unsigned seed) {
  const double speed = pass.speed_mm_s.value_or(kUsualSpeed_mm_s);
  // A lure beats about in step with its speed over its length (a swimming number near 0.3).
  const double beat = 1.5 * speed / model.length_mm.value_or(90.0);
  StraightPull pull{
      .speed_mm_s = chance.around(speed), .start_mm = -kHalfView_mm, .wobble_Hz = chance.around(beat)};
  pull.wobble_deg = chance.around(model.family == Family::Spoon      ? 42.0
                                  : model.family == Family::Jerkbait ? 28.0
                                                                     : 22.0);
  pull.roll_deg = model.family == Family::SoftPlastic ? 24.0 : 14.0;
  pull.kick_deg = model.family == Family::SoftPlastic ? 46.0 : 0.0;
  pull.lopsided = model.family == Family::Spoon ? 0.3 : 0.0;
  pull.unevenness = model.family == Family::BladedBait ? 0.09 : 0.015;
  pull.seed = seed;
  return pull;
}

Sink sinkFor(const Model& model, const Rig& rig, Chance& chance) {
  // Heavier falls faster, by the root of the weight.
  const double sinking_g = std::max(rig.head_g.value_or(0.0) + 0.4 * model.weight_g.value_or(8.0), 1.0);
  const double speed = chance.around(75.0 * std::sqrt(sinking_g));
  Sink sink{.speed_mm_s = speed,
            .timeConstant_s = 0.15,
            .from_mm = 0.5 * kDrop_mm,
            .bottom_mm = -0.5 * kDrop_mm - 30.0,
            .aside_mm = -60.0};
  const bool light = rig.head_g.value_or(10.0) < 5.0;
  sink.glide = light ? 0.6 : 0.05;
  sink.attitude_deg = chance.around(light ? 18.0 : 52.0);
  sink.kick_Hz = 3.2;
  sink.kick_deg = model.family == Family::SoftPlastic ? 30.0 : 0.0;
  if (model.family == Family::Spoon) sink.rock_deg = 46.0;
  return sink;
}

}  // namespace

Result<RehearsalScene> sceneFor(const Model& model, const Rig& rig, const PlannedPass& pass, unsigned seed) {
  Chance chance(seed);
  RehearsalScene scene;
  scene.lure = buildFor(model);
  scene.camera.view = pass.view;
  scene.camera.focal_px = 1700.0;
  scene.seed = seed;
  if (pass.protocol == Protocol::Retrieve && (pass.view == View::Top || pass.view == View::Side)) {
    const StraightPull pull = pullFor(model, pass, chance, seed);
    scene.motion = pull;
    scene.length = Seconds(2.0 * kHalfView_mm / pull.speed_mm_s);
    return scene;
  }
  if (pass.protocol == Protocol::Fall && pass.view == View::Side) {
    const Sink sink = sinkFor(model, rig, chance);
    scene.motion = sink;
    scene.length = Seconds(0.5 + (kDrop_mm + 60.0) / sink.speed_mm_s);
    return scene;
  }
  return failure(ErrorCode::Unsupported, "the rehearsal tank plays straight pulls and falls only, so far");
}

}  // namespace fin
