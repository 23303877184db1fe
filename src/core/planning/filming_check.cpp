// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/filming_check.h"

#include <fmt/format.h>

#include "core/calibration/refraction.h"
#include "core/readings/terminal_fall.h"

#include <cmath>
#include <numbers>

namespace fin {
namespace {

constexpr double kSamplesGood = 10.0;
constexpr double kSamplesFloor = 5.0;
constexpr double kBlurShare = 1.0 / 3.0;
constexpr double kCyclesGood = 5.0;
constexpr double kCyclesFloor = 2.0;
constexpr double kPlaneGood = 0.01;
constexpr double kPlaneMost = 0.03;
constexpr double kBodyGood_px = 60.0;
constexpr double kBodyFloor_px = 30.0;

Result<void> positive(double value, const char* key, const char* what) {
  if (std::isfinite(value) && value > 0.0) return {};
  return failure(ErrorCode::BadRequest, fmt::format("{} must be more than zero", what), key);
}

Fitness rated(double value, double good, double floor) {
  return value >= good ? Fitness::Good : value >= floor ? Fitness::Tight : Fitness::Bad;
}

FilmingFinding size(const FilmingPlan& plan, double perMillimetre) {
  const double body_px = plan.bodyLength_mm * perMillimetre;
  FilmingFinding f{"size", perMillimetre, "px/mm", rated(body_px, kBodyGood_px, kBodyFloor_px), {}, {}};
  f.verdict = fmt::format("the lure is {:.0f} px long in a view of {:.0f} mm", body_px,
                          plan.width_px / perMillimetre);
  if (f.fitness != Fitness::Good) f.change = "go nearer, or film with more pixels";
  return f;
}

FilmingFinding samples(const FilmingPlan& plan) {
  const double n = plan.captureRate_Hz / plan.wobble_Hz;
  FilmingFinding f{"samples", n, "frames a wobble", rated(n, kSamplesGood, kSamplesFloor), {}, {}};
  f.verdict = f.fitness == Fitness::Good    ? "enough to see how wide it swings"
              : f.fitness == Fitness::Tight ? "enough for the rate, too few for the width"
                                            : "too few: the rate itself will be wrong";
  if (f.fitness != Fitness::Good) {
    f.change =
        fmt::format("film at {:.0f} frames per second or more", std::ceil(kSamplesGood * plan.wobble_Hz));
  }
  return f;
}

FilmingFinding blur(const FilmingPlan& plan, double perMillimetre) {
  const double fastest = std::max(plan.pullSpeed_mm_s, plan.fallRate_mm_s);
  const double blur_px = fastest * plan.exposure_s * perMillimetre;
  const double most = kBlurShare * plan.mark_mm * perMillimetre;
  FilmingFinding f{"blur", blur_px, "px", rated(most / std::max(blur_px, 1e-9), 1.0, 0.5), {}, {}};
  f.verdict =
      fmt::format("a mark of {:.1f} px is smeared by {:.1f} px", plan.mark_mm * perMillimetre, blur_px);
  if (f.fitness != Fitness::Good) {
    f.change = fmt::format("expose 1/{:.0f} s or shorter, with more light",
                           std::ceil(fastest / (kBlurShare * plan.mark_mm)));
  }
  return f;
}

FilmingFinding cycles(const FilmingPlan& plan, double perMillimetre) {
  const double n = plan.wobble_Hz * (plan.width_px / perMillimetre) / plan.pullSpeed_mm_s;
  FilmingFinding f{"cycles", n, "wobbles in view", rated(n, kCyclesGood, kCyclesFloor), {}, {}};
  f.verdict = f.fitness == Fitness::Good    ? "enough to tell the rate well"
              : f.fitness == Fitness::Tight ? "a rate, but a poor one"
                                            : "too few for any rate";
  if (f.fitness != Fitness::Good) f.change = "go further away, pull slower, or let the camera move along";
  return f;
}

FilmingFinding plane(const FilmingPlan& plan, double distance_mm) {
  const double error = std::abs(plan.rulerOff_mm) / distance_mm;
  FilmingFinding f{"plane", 100.0 * error, "% of every length", Fitness::Good, {}, {}};
  f.fitness = error <= kPlaneGood ? Fitness::Good : error <= kPlaneMost ? Fitness::Tight : Fitness::Bad;
  f.verdict = plan.rulerOff_mm == 0.0
                  ? "the ruler hangs in the lure's plane"
                  : fmt::format("the ruler hangs {:.0f} mm off the lure's plane", std::abs(plan.rulerOff_mm));
  if (f.fitness != Fitness::Good) f.change = "hang the ruler where the lure runs, or measure both distances";
  return f;
}

FilmingFinding depth(const FilmingPlan& plan) {
  const double needed = TerminalFall::kSettledDrop * plan.fallRate_mm_s * plan.timeConstant_s +
                        plan.bodyLength_mm + plan.steadyPart_mm;
  FilmingFinding f{"depth", needed, "mm", rated(plan.waterDepth_mm / needed, 1.0, 0.85), {}, {}};
  f.verdict =
      fmt::format("a steady fall needs {:.0f} mm of the {:.0f} mm there are", needed, plan.waterDepth_mm);
  if (f.fitness != Fitness::Good) f.change = "find deeper water, or be content with a shorter steady part";
  return f;
}

FilmingFinding flicker(const FilmingPlan& plan) {
  const double flashes = 2.0 * plan.mains_Hz * plan.exposure_s;
  const double off = std::abs(flashes - std::round(flashes));
  const bool whole = flashes >= 0.5 && off < 0.05;
  FilmingFinding f{"flicker", 2.0 * plan.mains_Hz, "flashes per second", Fitness::Good, {}, {}};
  f.verdict = whole ? "the exposure holds whole flashes of the mains light"
                    : "mains light flickers from frame to frame at this exposure";
  if (!whole) {
    f.fitness = Fitness::Tight;
    f.change =
        fmt::format("use daylight or battery light, or expose a multiple of 1/{:.0f} s", 2.0 * plan.mains_Hz);
  }
  return f;
}

}  // namespace

Result<std::vector<FilmingFinding>> checkFilming(const FilmingPlan& plan, GramsPerKilogram salinity) {
  const std::pair<double, std::pair<const char*, const char*>> needed[] = {
      {plan.water_mm, {"water_mm", "the distance to the lure"}},
      {static_cast<double>(plan.width_px), {"width_px", "the picture's width"}},
      {plan.captureRate_Hz, {"captureRate_Hz", "the filming rate"}},
      {plan.exposure_s, {"exposure_s", "the exposure"}},
      {plan.mark_mm, {"mark_mm", "the mark's width"}},
      {plan.pullSpeed_mm_s, {"pullSpeed_mm_s", "the pull speed"}},
      {plan.wobble_Hz, {"wobble_Hz", "the wobble rate"}},
      {plan.bodyLength_mm, {"bodyLength_mm", "the lure's length"}},
      {plan.fallRate_mm_s, {"fallRate_mm_s", "the fall rate"}},
      {plan.timeConstant_s, {"timeConstant_s", "the time to settle"}},
      {plan.waterDepth_mm, {"waterDepth_mm", "the depth of the water"}}};
  for (const auto& [value, what] : needed) {
    if (auto ok = positive(value, what.first, what.second); !ok) return tl::unexpected(ok.error());
  }
  if (!(plan.fieldOfView_deg > 1.0 && plan.fieldOfView_deg < 170.0)) {
    return failure(ErrorCode::BadRequest, "the field of view must lie between 1 and 170 degrees",
                   "fieldOfView_deg");
  }
  if (plan.exposure_s > 1.0 / plan.captureRate_Hz) {
    return failure(ErrorCode::BadRequest, "the exposure is longer than a frame lasts", "exposure_s");
  }
  const double focal_px =
      0.5 * plan.width_px / std::tan(0.5 * plan.fieldOfView_deg * std::numbers::pi / 180.0);
  const auto seems = apparentDistance(
      {Millimetres(plan.air_mm), Millimetres(plan.glass_mm), Millimetres(plan.water_mm)}, salinity);
  if (!seems) return tl::unexpected(seems.error());
  const double distance = seems->value();
  const double perMillimetre = focal_px / distance;
  std::vector<FilmingFinding> out{size(plan, perMillimetre), samples(plan),
                                  blur(plan, perMillimetre), cycles(plan, perMillimetre),
                                  plane(plan, distance),     depth(plan)};
  if (plan.mains_Hz > 0.0) out.push_back(flicker(plan));
  return out;
}

}  // namespace fin
