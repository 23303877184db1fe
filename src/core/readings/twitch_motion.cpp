// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch_motion.h"

#include <algorithm>

#include "core/signals/local_fit.h"
#include "core/signals/turning_points.h"

namespace fin {
namespace {

constexpr double kStartShare = 0.25;  ///< of the 95th percentile of the speed
constexpr double kSlowShare = 0.10;   ///< it has to have been slower than this before
constexpr double kPercentile = 0.95;
constexpr double kPushShare = 0.35;  ///< by which the speed rises and falls in a push
constexpr double kRestShare = 0.02;
constexpr double kWindow_s = 0.025;  ///< either way, of a local fit
// A quarter of a pixel of scatter, of two marks over the window, feigns up to 13 px/s at 60 frames per
// second.
constexpr double kLeastSpeed_px_s = 20.0;
constexpr double kNearlyBack = 0.05;

using Values = std::vector<double>;

TwitchMotion motionOf(const Series& along, const Series& across, double unitPerPixel) {
  TwitchMotion out;
  out.leastSpeed = kLeastSpeed_px_s * unitPerPixel;
  for (const double t : along.t_s) {
    const auto to = localFit(along, t, kWindow_s);
    const auto aside = localFit(across, t, kWindow_s);
    if (!to || !aside) continue;
    out.along.add(t, to->value);
    out.across.add(t, aside->value);
    out.speed.add(t, to->slope);
  }
  return out;
}

double percentile(Values values, double share) {
  const auto at = static_cast<std::size_t>(share * static_cast<double>(values.size() - 1));
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(at), values.end());
  return values[at];
}

Values startsOf(const TwitchMotion& motion) {
  Values out;
  if (motion.speed.size() < 8) return out;
  const double fast = percentile(motion.speed.y, kPercentile);
  if (fast <= motion.leastSpeed) return out;
  bool slow = motion.speed.y.front() < kSlowShare * fast;
  for (std::size_t i = 1; i < motion.speed.size(); ++i) {
    slow |= motion.speed.y[i] < kSlowShare * fast;
    if (slow && motion.speed.y[i - 1] < kStartShare * fast && motion.speed.y[i] >= kStartShare * fast) {
      out.push_back(crossing(motion.speed, i, kStartShare * fast));
      slow = false;
    }
  }
  return out;
}

/// The top of the parabola through a sample and its two neighbours.
double topOf(const Series& s, std::size_t i) {
  if (i == 0 || i + 1 >= s.size()) return s.t_s[i];
  const double bend = s.y[i - 1] - 2.0 * s.y[i] + s.y[i + 1];
  const double part = bend < 0.0 ? std::clamp(0.5 * (s.y[i - 1] - s.y[i + 1]) / bend, -0.5, 0.5) : 0.0;
  return s.t_s[i] + part * 0.5 * (s.t_s[i + 1] - s.t_s[i - 1]);
}

/// Fills in peak, furthest and rearmost of a twitch whose start and end are known.
void lookInto(const TwitchMotion& motion, Twitch& twitch) {
  const Series speed = motion.speed.between(twitch.start_s, twitch.end_s);
  const Series along = motion.along.between(twitch.start_s, twitch.end_s);
  if (speed.size() < 4) return;
  const auto peak =
      static_cast<std::size_t>(std::max_element(speed.y.begin(), speed.y.end()) - speed.y.begin());
  twitch.peak_s = topOf(speed, peak);
  twitch.peakSpeed = speed.y[peak];
  std::size_t rest = peak;
  while (rest + 1 < speed.size() && speed.y[rest] > kRestShare * twitch.peakSpeed) ++rest;
  const auto furthest =
      std::max_element(along.y.begin(), along.y.begin() + static_cast<std::ptrdiff_t>(rest) + 1);
  twitch.furthest_s = along.t_s[static_cast<std::size_t>(furthest - along.y.begin())];
  const auto rearmost = std::min_element(furthest, along.y.end());
  twitch.rearmost_s = along.t_s[static_cast<std::size_t>(rearmost - along.y.begin())];
  const double nearly = *rearmost + kNearlyBack * (*furthest - *rearmost);
  const auto back = std::find_if(furthest, along.y.end(), [nearly](double v) { return v <= nearly; });
  twitch.back_s = along.t_s[static_cast<std::size_t>(back - along.y.begin())];
}

}  // namespace

TwitchMotion motionOfTwitches(const PassTraces& traces) {
  return motionOf(traces.alongCentre, traces.upCentre, traces.unitPerPixel);
}
TwitchMotion motionOfHops(const PassTraces& traces) {
  return motionOf(traces.upCentre, traces.alongCentre, traces.unitPerPixel);
}

double crossing(const Series& s, std::size_t after, double level) {
  const double rise = s.y[after] - s.y[after - 1];
  const double share = rise != 0.0 ? (level - s.y[after - 1]) / rise : 0.5;
  return s.t_s[after - 1] + share * (s.t_s[after] - s.t_s[after - 1]);
}

std::vector<Twitch> findTwitches(const TwitchMotion& motion, const std::optional<TwitchStarts>& said) {
  std::vector<Twitch> out;
  if (motion.along.empty()) return out;
  for (const double start : said ? said->starts_s : startsOf(motion)) {
    if (start < motion.along.t_s.front() || start >= motion.along.t_s.back()) continue;
    if (!out.empty()) out.back().end_s = start;
    out.push_back(
        {.start_s = start, .leftOut = said && said->leavesOut(start), .end_s = motion.along.t_s.back()});
  }
  for (Twitch& twitch : out) lookInto(motion, twitch);
  return out;
}

std::size_t pushesWithoutRest(const TwitchMotion& motion, const std::vector<Twitch>& twitches) {
  if (twitches.empty() || motion.speed.empty()) return 0;
  const double fast = percentile(motion.speed.y, kPercentile);
  const auto turns = turningPoints(motion.speed, kPushShare * fast);
  const auto pushes = static_cast<std::size_t>(std::count_if(turns.begin(), turns.end(), [&](const auto& p) {
    return p.high && p.value > kPushShare * fast && p.t_s > twitches.front().start_s;
  }));
  return pushes > twitches.size() ? pushes - twitches.size() : 0;
}

}  // namespace fin
