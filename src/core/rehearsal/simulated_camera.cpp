// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/simulated_camera.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr double kUsualSpeed_mm_s = 260.0;
constexpr double kHalfView_mm = 480.0;  ///< of the pull that is shown
constexpr double kDrop_mm = 480.0;
constexpr double kFloor_mm = -310.0;  ///< under the middle of the picture
constexpr double kSpread = 0.04;      ///< from pass to pass

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
              .bandCount = 4,
              .shape = LureShape::PaddleTail};
    case Family::Jerkbait:
      return {.length_mm = length,
              .height_mm = 0.22 * length,
              .width_mm = 0.14 * length,
              .lip_mm = 0.12 * length,
              .shape = LureShape::Jerkbait};
    case Family::Spoon:
      return {.length_mm = length,
              .height_mm = 0.12 * length,
              .width_mm = 0.38 * length,
              .back = {178.0, 136.0, 62.0},
              .belly = {196.0, 190.0, 176.0},
              .bands = {90.0, 40.0, 30.0},
              .bandCount = 3,
              .shape = LureShape::Spoon};
    case Family::BladedBait:
      return {.length_mm = length,
              .height_mm = 0.29 * length,
              .width_mm = 0.24 * length,
              .tail_mm = 0.5 * length,
              .lip_mm = 0.15 * length,
              .back = {40.0, 50.0, 70.0},
              .belly = {150.0, 160.0, 175.0},
              .bands = {200.0, 190.0, 90.0},
              .bandCount = 4,
              .shape = LureShape::BladedBait};
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

Jerks jerksFor(const Model& model, Chance& chance, bool walks, unsigned seed) {
  Jerks jerks{.count = 5,
              .first_s = 0.35,
              .every_s = walks ? 0.7 : 1.05,
              .uneven_s = 0.02,
              .start_mm = -280.0,
              .height_mm = walks ? 0.0 : 60.0,
              .advance_mm = chance.around(110.0),
              .advanceSpread_mm = 4.0,
              .back_mm = chance.around(walks ? 8.0 : 26.0),
              .seed = seed};
  jerks.swing_deg = walks ? chance.around(60.0) : 0.0;
  if (model.buoyancy == Buoyancy::Floats) jerks.drift_mm_s = chance.around(40.0);
  if (model.buoyancy == Buoyancy::Sinks) jerks.drift_mm_s = chance.around(-45.0);
  return jerks;
}

struct Played {
  Motion motion;
  double length_s;
};

/// None for what the tank cannot play.
std::optional<Played> played(const Model& model, const Rig& rig, const PlannedPass& pass, Chance& chance,
                             unsigned seed) {
  const bool side = pass.view == View::Side;
  const bool top = pass.view == View::Top;
  if (pass.protocol == Protocol::Retrieve && (top || side)) {
    const StraightPull pull = pullFor(model, pass, chance, seed);
    return Played{pull, 2.0 * kHalfView_mm / pull.speed_mm_s};
  }
  if (pass.protocol == Protocol::Fall && side) {
    const Sink sink = sinkFor(model, rig, chance);
    return Played{sink, 0.5 + (kDrop_mm + 60.0) / sink.speed_mm_s};
  }
  if (pass.protocol == Protocol::Twitch && (top || side))
    return Played{jerksFor(model, chance, false, seed), 5.4};
  if (pass.protocol == Protocol::Walk && top) return Played{jerksFor(model, chance, true, seed), 3.9};
  if (pass.protocol == Protocol::Hop && side)
    return Played{Hops{.bottom_mm = -150.0,
                       .height_mm = chance.around(150.0),
                       .speed_mm_s = chance.around(190.0),
                       .seed = seed},
                  4.6};
  if (pass.protocol == Protocol::Skirt && side) {
    const bool rubber = rig.skirt == "rubber";
    return Played{SkirtStop{.peak_deg = chance.around(36.0),
                            .rest_deg = 12.0,
                            .halfLife_s = chance.around(rubber ? 0.6 : 0.25)},
                  4.6};
  }
  if (pass.protocol == Protocol::Rest && side)
    return Played{Stand{.bottom_mm = kFloor_mm + 4.0,
                        .body_mm = buildFor(model).length_mm,
                        .angle_deg = chance.around(model.buoyancy == Buoyancy::Floats ? 65.0 : 20.0)},
                  3.0};
  return std::nullopt;
}

}  // namespace

Result<RehearsalScene> sceneFor(const Model& model, const Rig& rig, const PlannedPass& pass, unsigned seed) {
  Chance chance(seed);
  const auto plays = played(model, rig, pass, chance, seed);
  if (!plays)
    return failure(ErrorCode::Unsupported,
                   fmt::format("the rehearsal tank cannot play this kind of pass ({}, {}) yet",
                               toString(pass.protocol), toString(pass.view)));
  RehearsalScene scene;
  scene.lure = buildFor(model);
  if (pass.protocol == Protocol::Skirt) {
    scene.lure.tail_mm = 0.0;
    scene.lure.skirt_mm = 0.8 * scene.lure.length_mm;
  }
  scene.motion = plays->motion;
  scene.length = Seconds(plays->length_s);
  scene.camera.view = pass.view;
  scene.camera.focal_px = 1700.0;
  scene.basin = BasinLook{};
  if (pass.view == View::Side) {
    scene.basin->surface_mm = 0.5 * kDrop_mm + 50.0;
    scene.basin->floor_mm = kFloor_mm;
  }
  scene.noise_grey = 1.2;
  scene.seed = seed;
  return scene;
}

}  // namespace fin
