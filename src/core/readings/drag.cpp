// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/drag.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>

#include "core/readings/rhythm_readings.h"
#include "core/readings/twitch_motion.h"
#include "core/signals/local_fit.h"
#include "core/signals/turning_points.h"

namespace fin {
namespace {

constexpr double kDragWindow_s = 0.018;   ///< either way, of a local fit
constexpr double kLeastWay_bodies = 0.5;  ///< of a drag
constexpr double kLeastSwing_deg = 1.0;   ///< smaller ones do not count
constexpr double kFeignedSwing_px = 1.5;  ///< nor those that the scatter of two marks may feign
constexpr std::size_t kFewestSwings = 4;
constexpr double kPerMetre = 1000.0;

/// The movement of one angle per metre of way.
void readMovement(ReadingId id, const Series& angle, const Swing& swing, const PassTraces& traces,
                  const Series& way, ReadingSheet& sheet) {
  const double perPixel_deg = swing.unitPerPixel / swing.arm * kDegreesPerRadian;
  const double least = std::max(kLeastSwing_deg, kFeignedSwing_px * perPixel_deg);
  const std::vector<TurningPoint> turns = turningPoints(smoothed(angle, kDragWindow_s), least);
  if (turns.size() < kFewestSwings + 1) {
    return sheet.refuse(id, fmt::format("it swings by more than {:.1f}° {} times only in view; drag it "
                                        "further",
                                        least, turns.size()));
  }
  const double pulled =
      std::abs(valueAt(way, turns.back().t_s) - valueAt(way, turns.front().t_s)) / kPerMetre;
  std::vector<double> swings;
  double sum = 0.0;
  for (std::size_t i = 1; i < turns.size(); ++i) {
    swings.push_back(std::abs(turns[i].value - turns[i - 1].value));
    sum += swings.back();
  }
  if (pulled * kPerMetre < kLeastWay_bodies * traces.bodyLength)
    return sheet.refuse(id, "it is hardly pulled along in view; drag it further");
  const auto n = static_cast<double>(swings.size());
  double squares = 0.0;
  for (const double s : swings) squares += std::pow(s - sum / n, 2);
  const double place_m = placeDifferenceU95(traces) / kPerMetre;
  Estimate e;
  e.value = sum / pulled;
  e.setUncertainty(
      {{UncertaintySource::Scatter, kNormal95 * std::sqrt(squares / (n - 1.0) * n) / pulled},
       {UncertaintySource::Marks,
        std::hypot(e.value * place_m / pulled, n * perMove_deg(swing) * kMarkMoveU95.value() / pulled)},
       {UncertaintySource::Scale, e.value * traces.scaleRelativeU95}});
  e.n = n;
  e.grade = gradeOf(e.value, e.u95);
  e.notes.push_back(
      fmt::format("{:.0f} swings of more than {:.1f}° over {:.0f} mm", n, least, pulled * kPerMetre));
  sheet.give(id, e);
}

}  // namespace

void readDrag(const PassTraces& traces, ReadingSheet& sheet) {
  if (traces.frames() < 8) return;
  const Series way = smoothed(traces.alongCentre, kDragWindow_s);
  const Swing body{"turning", traces.bodyLength, traces.unitPerPixel, traces.frameRate_Hz};
  readMovement(ReadingId::DragTurning, traces.axis, body, traces, way, sheet);
  if (!traces.kick.empty())
    readMovement(ReadingId::DragKick, traces.kick, kickOf(traces), traces, way, sheet);
}

}  // namespace fin
