// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

#include "core/readings/body_angle.h"
#include "core/readings/twitch_motion.h"
#include "core/readings/twitch_sheet.h"
#include "core/readings/zone_time.h"
#include "core/signals/line_fit.h"

namespace fin {
namespace {

constexpr double kExtremesU95_px = 0.9;  ///< of a furthest and a rearmost place: wandering pushes both out
constexpr TwitchWords kTwitchWords{"twitches", ReadingId::TwitchCount, ReadingId::TwitchInterval,
                                   ReadingId::TwitchIntervalVariation};
constexpr double kTwitchStopShare = 0.10;  ///< of a twitch's peak speed
constexpr double kSettled_s = 0.20;        ///< after the rearmost point a pause is still
constexpr double kBeforeNext_s = 0.08;     ///< the run-up to the next start is no pause
constexpr double kLeastPause_s = 0.15;
constexpr double kShortestPause_s = 0.08;
constexpr double kBackShare = 0.90;
constexpr double kLeastDrift_mm_s = 0.5;  ///< of its uncertainty
constexpr double kLeastBackShare = 0.08;  ///< of the advance: less is no spring-back whose time could be told
constexpr double kFewestForLikeness = 3.0;
constexpr std::size_t kPathPoints = 20;

using Values = std::vector<double>;

/// What the medians over the twitches are taken from.
struct Measured {
  Values advance, springBack, springRatio, springTime, stopTime, stopDistance, rise, heading_rad;
  Values drift, driftU95, attitude;
  Values hurriedDrift;                         ///< of pauses too short to have settled
  std::vector<std::vector<PixelPoint>> paths;  ///< start → furthest, over the advance
};

std::vector<PixelPoint> pathOf(const TwitchMotion& motion, const Twitch& twitch, double advance) {
  std::vector<PixelPoint> raw;
  Values length{0.0};
  const PixelPoint start{valueAt(motion.along, twitch.start_s), valueAt(motion.across, twitch.start_s)};
  const auto add = [&](double t) {
    const PixelPoint at = PixelPoint{valueAt(motion.along, t), valueAt(motion.across, t)} - start;
    if (!raw.empty()) length.push_back(length.back() + fin::length(at - raw.back()).value());
    raw.push_back(at);
  };
  add(twitch.start_s);
  for (const double t : motion.along.between(twitch.start_s, twitch.furthest_s).t_s) add(t);
  std::vector<PixelPoint> out;
  std::size_t at = 1;
  for (std::size_t k = 0; k < kPathPoints; ++k) {
    const double wanted = length.back() * static_cast<double>(k) / (kPathPoints - 1);
    while (at + 1 < length.size() && length[at] < wanted) ++at;
    const double step = length[at] - length[at - 1];
    const double share = step > 0.0 ? std::clamp((wanted - length[at - 1]) / step, 0.0, 1.0) : 0.0;
    out.push_back((raw[at - 1] + (raw[at] - raw[at - 1]) * share) * (1.0 / advance));
  }
  return out;
}

void measureStop(const TwitchMotion& motion, const Twitch& twitch, Measured& out) {
  const Series speed = motion.speed.between(twitch.peak_s, twitch.end_s);
  for (std::size_t i = 1; i < speed.size(); ++i) {
    if (speed.y[i] >= kTwitchStopShare * twitch.peakSpeed) continue;
    const double stop_s = crossing(speed, i, kTwitchStopShare * twitch.peakSpeed);
    out.stopTime.push_back(stop_s - twitch.peak_s);
    out.stopDistance.push_back(valueAt(motion.along, stop_s) - valueAt(motion.along, twitch.peak_s));
    return;
  }
}

void measureSpringBack(const TwitchMotion& motion, const Twitch& twitch, double advance, Measured& out) {
  const double furthest = valueAt(motion.along, twitch.furthest_s);
  const double back = furthest - valueAt(motion.along, twitch.rearmost_s);
  out.springBack.push_back(back);
  out.springRatio.push_back(100.0 * back / advance);
  const Series after = motion.along.between(twitch.furthest_s, twitch.rearmost_s);
  for (std::size_t i = 1; i < after.size(); ++i) {
    if (after.y[i] > furthest - kBackShare * back) continue;
    out.springTime.push_back(crossing(after, i, furthest - kBackShare * back) - twitch.furthest_s);
    return;
  }
}

void measurePause(const PassTraces& traces, const Twitch& twitch, double face, Measured& out) {
  const double from = twitch.back_s + kSettled_s;
  const double to = twitch.end_s - kBeforeNext_s;
  if (to - from < kLeastPause_s) {
    // Where the next twitch comes soon, what little is left tells no more than the pause's class.
    const auto line = fitLine(traces.upCentre.between(std::max(twitch.back_s, to - kLeastPause_s), to));
    if (to - twitch.back_s >= kShortestPause_s && line) out.hurriedDrift.push_back(line->slope);
    return;
  }
  if (const auto line = fitLine(traces.upCentre.between(from, to))) {
    out.drift.push_back(line->slope);
    out.driftU95.push_back(line->slopeU95);
  }
  const Series up = traces.bodyUp.between(from, to);
  const Series along = traces.bodyAlong.between(from, to);
  Values pitch;
  for (std::size_t i = 0; i < up.size(); ++i)
    pitch.push_back(std::atan2(-up.y[i], face * along.y[i]) * kDegreesPerRadian);
  if (!pitch.empty())
    out.attitude.push_back(std::accumulate(pitch.begin(), pitch.end(), 0.0) /
                           static_cast<double>(pitch.size()));
}

Measured measure(const PassTraces& traces, const TwitchMotion& motion, const std::vector<Twitch>& twitches) {
  Measured out;
  const double face = median(traces.bodyAlong.y) < 0.0 ? -1.0 : 1.0;
  for (std::size_t i = 0; i < twitches.size(); ++i) {
    const Twitch& t = twitches[i];
    const double along = valueAt(motion.along, t.furthest_s) - valueAt(motion.along, t.start_s);
    if (along <= 0.0 || t.leftOut) continue;
    const double aside = valueAt(motion.across, t.furthest_s) - valueAt(motion.across, t.start_s);
    out.advance.push_back(along);
    out.heading_rad.push_back(std::atan2(aside, along));
    out.paths.push_back(pathOf(motion, t, along));
    measureStop(motion, t, out);
    measureSpringBack(motion, t, along, out);
    measurePause(traces, t, face, out);
    if (i + 1 < twitches.size() && !twitches[i + 1].leftOut)
      out.rise.push_back(valueAt(motion.across, twitches[i + 1].start_s) - valueAt(motion.across, t.start_s));
  }
  return out;
}

/// How alike the twitches are: spread of their headings, and distance of their paths from each other.
void readLikeness(const Measured& m, TwitchSheet& out) {
  const auto n = static_cast<double>(m.heading_rad.size());
  if (n < kFewestForLikeness) {
    for (const ReadingId id : {ReadingId::DartSpread, ReadingId::Erraticness})
      out.sheet().refuse(id, "at least three twitches are needed to tell how alike they are");
    return;
  }
  double c = 0.0;
  double s = 0.0;
  for (const double h : m.heading_rad) {
    c += std::cos(h) / n;
    s += std::sin(h) / n;
  }
  const double noise = out.moveU95() / median(m.advance);
  const double spread =
      std::sqrt(std::max(-2.0 * std::log(std::min(std::hypot(c, s), 1.0)), 0.0)) * kDegreesPerRadian;
  out.give(ReadingId::DartSpread, spread,
           {{UncertaintySource::Scatter, kNormal95 * spread / std::sqrt(2.0 * (n - 1.0))},
            {UncertaintySource::Marks, noise * kDegreesPerRadian * 0.5}},
           n);
  Values apart;
  for (std::size_t i = 0; i < m.paths.size(); ++i) {
    for (std::size_t j = 0; j < i; ++j) {
      double squares = 0.0;
      for (std::size_t k = 0; k < kPathPoints; ++k)
        squares += std::pow(length(m.paths[i][k] - m.paths[j][k]).value(), 2);
      apart.push_back(100.0 * std::sqrt(squares / kPathPoints));
    }
  }
  const double mean = std::accumulate(apart.begin(), apart.end(), 0.0) / static_cast<double>(apart.size());
  // Pairs share twitches: as many independent ones as there are twitches.
  out.give(ReadingId::Erraticness, mean,
           {{UncertaintySource::Scatter, kNormal95 * robustSpread(apart) / std::sqrt(n)},
            {UncertaintySource::Marks, 50.0 * noise}},
           n);
}

void readPauses(const Measured& m, double holds_mm_s, TwitchSheet& out) {
  const char* why = "no pause is long enough to be still; pause for a second or more";
  // How well a single pause tells its slope: with few of them their own spread says little.
  const double each = m.driftU95.empty() ? 0.0
                                         : kMedianOverMean * median(m.driftU95) /
                                               std::sqrt(static_cast<double>(m.driftU95.size()));
  out.median(ReadingId::PauseDrift, m.drift, {{UncertaintySource::Marks, std::hypot(kLeastDrift_mm_s, each)}},
             why);
  const double turn = bodyAnglePlaceU95_deg(out.traces());
  out.median(ReadingId::PauseAttitude, m.attitude,
             {{UncertaintySource::Marks, turn}, {UncertaintySource::Plumb, kPlumbU95_deg}}, why);
  const Values& drifts = m.drift.empty() ? m.hurriedDrift : m.drift;
  if (drifts.empty()) return out.sheet().refuse(ReadingId::PauseClass, why);
  const double drift = median(drifts);
  std::vector<std::string> notes{fmt::format("holds within ± {:.0f} mm/s", holds_mm_s)};
  if (m.drift.empty()) notes.emplace_back("the pauses are short: it may not have settled");
  out.sheet().give(ReadingId::PauseClass,
                   drift > holds_mm_s    ? "rises"
                   : drift < -holds_mm_s ? "sinks"
                                         : "holds",
                   std::move(notes), static_cast<double>(drifts.size()));
}

void readWalk(const Measured& m, TwitchSheet& out) {
  const Values& h = m.heading_rad;
  if (h.size() < 3) {
    for (const ReadingId id : {ReadingId::SideSwitch, ReadingId::SwingAngle})
      out.sheet().refuse(id, "at least three twitches are needed");
    return;
  }
  const double middle = std::accumulate(h.begin(), h.end(), 0.0) / static_cast<double>(h.size());
  double switches = 0.0;
  Values swings;
  for (std::size_t i = 1; i < h.size(); ++i) {
    if ((h[i] > middle) != (h[i - 1] > middle)) switches += 1.0;
    swings.push_back(std::abs(std::remainder(h[i] - h[i - 1], 2.0 * std::numbers::pi)) * kDegreesPerRadian);
  }
  const auto n = static_cast<double>(swings.size());
  out.give(ReadingId::SideSwitch, 100.0 * switches / n, {{UncertaintySource::Scatter, 100.0 / n}}, n);
  out.median(
      ReadingId::SwingAngle, swings,
      {{UncertaintySource::Marks, std::sqrt(2.0) * out.moveU95() / median(m.advance) * kDegreesPerRadian}},
      "");
}

}  // namespace

void readTwitch(const PassTraces& traces, Protocol protocol, View view, ReadingSheet& sheet,
                const std::optional<TwitchStarts>& said, const Thresholds& thresholds) {
  if (traces.frames() < 8) return;
  const TwitchMotion motion = motionOfTwitches(traces);
  const std::vector<Twitch> twitches = findTwitches(motion, said);
  if (!canBeRead(motion, twitches, said.has_value(), protocol, kTwitchWords, sheet)) return;
  const Measured m = measure(traces, motion, twitches);
  TwitchSheet out(traces, kTwitchWords, sheet);
  out.cadence(twitches);
  out.length(ReadingId::Advance, m.advance, "no twitch goes forward in view");
  const double extremes = kExtremesU95_px * traces.unitPerPixel;
  out.length(ReadingId::SpringBack, m.springBack, "no twitch goes forward in view", extremes);
  const double share = m.advance.empty() ? 0.0 : 100.0 * extremes / median(m.advance);
  out.median(ReadingId::SpringBackRatio, m.springRatio, {{UncertaintySource::Marks, share}},
             "no twitch goes forward in view");
  const double frame_s = 1.0 / traces.frameRate_Hz;
  if (!m.springRatio.empty() && median(m.springRatio) < 100.0 * kLeastBackShare) {
    sheet.refuse(ReadingId::SpringBackTime, "it hardly springs back, so that no time can be told for it");
  } else {
    out.median(ReadingId::SpringBackTime, m.springTime, {{UncertaintySource::FrameTime, frame_s}},
               "it does not spring back in view");
  }
  out.median(ReadingId::StopTime, m.stopTime, {{UncertaintySource::FrameTime, frame_s}},
             "no twitch comes to a stop in view");
  out.length(ReadingId::StopDistance, m.stopDistance, "no twitch comes to a stop in view");
  readLikeness(m, out);
  if (view == View::Side || view == View::Chase) {
    readPauses(m, thresholds.holdsWithin_mm_s, out);
    out.length(ReadingId::RisePerTwitch, m.rise, "one twitch alone does not tell what a twitch adds");
    if (traces.inMillimetres) readZone(motion, twitches, thresholds, sheet);
  }
  if (protocol == Protocol::Walk) readWalk(m, out);
}

}  // namespace fin
