// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/rest.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <optional>

#include "core/readings/body_angle.h"
#include "core/signals/local_fit.h"

namespace fin {
namespace {

constexpr double kLies_deg = 30.0;
constexpr double kSpeedWindow_s = 0.05;  ///< either way
constexpr double kFastShare = 0.4;       ///< of the greatest speed: slower, it has not begun to fall
constexpr double kStays_s = 0.15;
constexpr double kFallsAtLeast_bodies = 0.15;  ///< less of a drop is no fall: it lay there already
constexpr std::size_t kRestBlocks = 6;

/// Angle of the body above the bottom, 0 … 90°.
Series standing(const PassTraces& traces, double bottom_deg) {
  Series out;
  for (std::size_t i = 0; i < traces.frames(); ++i) {
    const double raw = std::atan2(traces.bodyUp.y[i], traces.bodyAlong.y[i]) * kDegreesPerRadian - bottom_deg;
    const double folded = std::abs(std::remainder(raw, 180.0));
    out.add(traces.axis.t_s[i], folded);
  }
  return out;
}

/// When it touches down: its speed downwards first falls below half of what it was, and stays there a while.
/// The first instant where it lies there already; none where it is still falling. (It may fall over later
/// on.)
std::optional<double> restFrom(const PassTraces& traces) {
  const auto& up = traces.upCentre;
  const auto [lowest, highest] = std::minmax_element(up.y.begin(), up.y.end());
  if (*highest - *lowest < kFallsAtLeast_bodies * traces.bodyLength) return up.t_s.front();
  Series speed;
  for (const double t : up.t_s) {
    if (const auto fit = localFit(up, t, kSpeedWindow_s)) speed.add(t, -fit->slope);
  }
  const double fast = *std::max_element(speed.y.begin(), speed.y.end());
  double falling = 0.0;
  for (std::size_t i = 0; i < speed.size(); ++i) {
    falling = std::max(falling, speed.y[i]);
    if (falling < kFastShare * fast || speed.y[i] > 0.5 * falling) continue;
    const Series after = speed.between(speed.t_s[i], speed.t_s[i] + kStays_s);
    if (*std::max_element(after.y.begin(), after.y.end()) < 0.5 * falling) return speed.t_s[i];
  }
  return std::nullopt;
}

}  // namespace

void readRest(const PassTraces& traces, double bottom_deg, ReadingSheet& sheet) {
  if (traces.frames() < 8) return;
  const auto from = restFrom(traces);
  if (!from) {
    for (const ReadingId id : {ReadingId::StandAngle, ReadingId::StandTime})
      sheet.refuse(id, "the lure does not come to rest in view; let it lie on the bottom for some seconds");
    return;
  }
  const Series angle = standing(traces, bottom_deg);
  double to = angle.t_s.back();
  bool lay = false;
  for (std::size_t i = 0; i < angle.size() && !lay; ++i) {
    lay = angle.t_s[i] > *from && angle.y[i] < kLies_deg;
    if (lay) to = angle.t_s[i];
  }
  const Series stood = angle.between(*from, to);
  if (stood.size() < 3) {
    sheet.refuse(ReadingId::StandAngle, "it lies on its side as soon as it touches down");
  } else {
    sheet.give(ReadingId::StandAngle, meanBodyAngle(stood, kRestBlocks, traces));
  }
  Estimate time;
  time.value = to - *from;
  time.setUncertainty({
      {UncertaintySource::FrameTime, 2.0 / std::max(traces.frameRate_Hz, 1.0)},
      {UncertaintySource::Scatter, 0.5 * kSpeedWindow_s}  // either way
  });
  time.n = static_cast<double>(stood.size());
  time.grade = gradeOf(time.value, time.u95);
  time.notes.push_back(lay ? fmt::format("it lies down (below {:.0f}°)", kLies_deg)
                           : "still standing when the view ends");
  sheet.give(ReadingId::StandTime, time);
}

}  // namespace fin
