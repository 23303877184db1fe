// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/hop.h"

#include <algorithm>
#include <cmath>

#include "core/readings/lift.h"
#include "core/readings/rhythm_readings.h"
#include "core/readings/twitch_sheet.h"
#include "core/signals/line_fit.h"

namespace fin {
namespace {

constexpr TwitchWords kHopWords{"hops", ReadingId::HopCount, ReadingId::HopInterval,
                                ReadingId::HopIntervalVariation};
constexpr double kBeforeFirst_s = 0.3;  ///< in which the first hop stood on the bottom
constexpr double kRateFrom = 0.2;       ///< of the way down, with speed gathered
constexpr double kDownShare = 0.9;
constexpr double kLevelDrawn_px = 2.0;
constexpr const char* kNoFall = "no hop falls back in view; let it come down before the next one";

using Values = std::vector<double>;

/// When a falling series has come down by a share of the way from its first to its last sample.
std::optional<double> cameDown(const Series& fall, double share) {
  const double level = fall.y.front() + share * (fall.y.back() - fall.y.front());
  for (std::size_t i = 1; i < fall.size(); ++i) {
    if (fall.y[i] <= level) return crossing(fall, i, level);
  }
  return std::nullopt;
}

struct Hops {
  Values height, fallTime, fallRate, kickRate, kickRateU95, kickAngle, kickAngleU95;
  std::string noKick;  ///< why the last fall without one showed none
};

void measureKick(const PassTraces& traces, const Twitch& hop, Hops& out) {
  const Swing tip = kickOf(traces);
  const auto kick = findSwinging(traces.kick.between(hop.furthest_s, hop.back_s), tip);
  if (!kick) {
    out.noKick = kick.error().message;
    return;
  }
  const Estimate rate = rateOf(*kick, tip);
  const Estimate angle = angleOf(*kick, tip);
  out.kickRate.push_back(rate.value);
  out.kickRateU95.push_back(rate.u95);
  out.kickAngle.push_back(angle.value);
  out.kickAngleU95.push_back(angle.u95);
}

Hops measure(const PassTraces& traces, const TwitchMotion& motion, const std::vector<Twitch>& hops) {
  Hops out;
  for (std::size_t i = 0; i < hops.size(); ++i) {
    const Twitch& hop = hops[i];
    if (hop.leftOut) continue;
    const double stood_s = i == 0 ? hop.start_s - kBeforeFirst_s : hops[i - 1].back_s;
    const Series before = motion.along.between(stood_s, hop.start_s);
    if (before.empty()) continue;
    out.height.push_back(valueAt(motion.along, hop.furthest_s) -
                         *std::min_element(before.y.begin(), before.y.end()));
    const Series fall = motion.along.between(hop.furthest_s, hop.rearmost_s);
    if (fall.size() < 3) continue;
    const auto from = cameDown(fall, kRateFrom);
    const auto to = cameDown(fall, kDownShare);
    if (!from || !to) continue;
    out.fallTime.push_back(*to - hop.furthest_s);
    if (const auto line = fitLine(traces.upCentre.between(*from, *to))) out.fallRate.push_back(-line->slope);
    if (!traces.kick.empty()) measureKick(traces, hop, out);
  }
  return out;
}

/// Heights over the bottom where both levels are marked.
Levels levelsOf(const PassTraces& traces) {
  Levels out;
  // The mark, and the bottom or the waterline as it was drawn.
  out.unsure = std::hypot(placeDifferenceU95(traces), kLevelDrawn_px * traces.unitPerPixel);
  if (traces.depth.size() != traces.overBottom.size()) return out;
  out.height = traces.overBottom;
  out.whole = traces.overBottom;
  for (std::size_t i = 0; i < out.whole.size(); ++i) out.whole.y[i] += traces.depth.y[i];
  return out;
}

/// Of a bend between two halves of the body, by what its marks may be off.
double perMidMove_deg(const PassTraces& traces) {
  return std::sqrt(6.0) * kMarkMoveU95.value() * traces.unitPerPixel / (0.5 * traces.bodyLength) *
         kDegreesPerRadian;
}

/// How well a median of estimates is known by what each of them says of itself.
double ownU95(const Values& u95) {
  if (u95.empty()) return 0.0;
  return kMedianOverMean * median(u95) / std::sqrt(static_cast<double>(u95.size()));
}

}  // namespace

void readHop(const PassTraces& traces, ReadingSheet& sheet, const std::optional<TwitchStarts>& said) {
  if (traces.frames() < 8) return;
  const TwitchMotion motion = motionOfHops(traces);
  const std::vector<Twitch> hops = findTwitches(motion, said);
  if (!canBeRead(motion, hops, said.has_value(), Protocol::Hop, kHopWords, sheet)) return;
  const Hops m = measure(traces, motion, hops);
  TwitchSheet out(traces, kHopWords, sheet);
  out.cadence(hops);
  out.length(ReadingId::HopHeight, m.height, "the place that it hops from is not in view");
  out.median(ReadingId::FallBackTime, m.fallTime, {{UncertaintySource::FrameTime, 1.0 / traces.frameRate_Hz}},
             kNoFall);
  out.length(ReadingId::FallBackRate, m.fallRate, kNoFall);
  readLowShare(levelsOf(traces), sheet);
  if (!traces.bend.empty()) readBodyPulse(traces.bend, hops, perMidMove_deg(traces), sheet);
  if (traces.kick.empty()) return;
  readLiftKick(traces, hops, sheet);
  const char* why = m.noKick.empty() ? kNoFall : m.noKick.c_str();
  out.median(ReadingId::HopKickFrequency, m.kickRate, {{UncertaintySource::Cycles, ownU95(m.kickRateU95)}},
             why);
  out.median(ReadingId::HopKickAngle, m.kickAngle, {{UncertaintySource::Marks, ownU95(m.kickAngleU95)}}, why);
}

}  // namespace fin
