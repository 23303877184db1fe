// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch.h"

#include <fmt/format.h>
#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <numeric>

#include "core/signals/line_fit.h"
#include "core/signals/local_fit.h"

namespace fin {
namespace {

constexpr double kStartShare = 0.25;  ///< of the 95th percentile of the speed
constexpr double kSlowShare = 0.10;   ///< it has to have been slower than this before
constexpr double kPercentile = 0.95;
constexpr double kTwitchStopShare = 0.10;  ///< of a twitch's peak speed
constexpr double kRestShare = 0.02;
constexpr double kWindow_s = 0.025;     ///< either way, of a local fit
constexpr double kSettled_s = 0.20;     ///< after the rearmost point a pause is still
constexpr double kBeforeNext_s = 0.08;  ///< the run-up to the next start is no pause
constexpr double kLeastPause_s = 0.15;
constexpr double kBackShare = 0.90;
constexpr double kNearlyBack = 0.05;
constexpr double kHolds_mm_s = 10.0;
constexpr double kLeastDrift_mm_s = 0.5;  ///< of its uncertainty
constexpr double kLeastBackShare = 0.08;  ///< of the advance: less is no spring-back whose time could be told
constexpr double kFewestTwitches = 3.0;
constexpr std::size_t kPathPoints = 20;

const double kPlace_px = std::sqrt(2.0) * kMarkPlaceU95.value();

using Values = std::vector<double>;

/// The smoothed motion at the frames.
struct Motion {
  Series along;
  Series up;
  Series speed;  ///< along
};

Motion motionOf(const PassTraces& traces) {
  Motion out;
  for (const double t : traces.alongCentre.t_s) {
    const auto along = localFit(traces.alongCentre, t, kWindow_s);
    const auto up = localFit(traces.upCentre, t, kWindow_s);
    if (!along || !up) continue;
    out.along.add(t, along->value);
    out.up.add(t, up->value);
    out.speed.add(t, along->slope);
  }
  return out;
}

double percentile(Values values, double share) {
  const auto at = static_cast<std::size_t>(share * static_cast<double>(values.size() - 1));
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(at), values.end());
  return values[at];
}

double valueAt(const Series& series, double t) {
  const auto after = std::lower_bound(series.t_s.begin(), series.t_s.end(), t);
  if (after == series.t_s.begin()) return series.y.front();
  if (after == series.t_s.end()) return series.y.back();
  const auto i = static_cast<std::size_t>(after - series.t_s.begin());
  const double share = (t - series.t_s[i - 1]) / (series.t_s[i] - series.t_s[i - 1]);
  return series.y[i - 1] + share * (series.y[i] - series.y[i - 1]);
}

/// When a series passes a level between two samples.
double crossing(const Series& s, std::size_t after, double level) {
  const double rise = s.y[after] - s.y[after - 1];
  const double share = rise != 0.0 ? (level - s.y[after - 1]) / rise : 0.5;
  return s.t_s[after - 1] + share * (s.t_s[after] - s.t_s[after - 1]);
}

Values startsOf(const Motion& motion) {
  Values out;
  if (motion.speed.size() < 8) return out;
  const double fast = percentile(motion.speed.y, kPercentile);
  if (fast <= 0.0) return out;
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
void lookInto(const Motion& motion, Twitch& twitch) {
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

/// What the medians over the twitches are taken from.
struct Measured {
  Values advance, springBack, springRatio, springTime, stopTime, stopDistance, rise, heading_rad;
  Values drift, driftU95, attitude;
  std::vector<std::vector<PixelPoint>> paths;  ///< start → furthest, over the advance
};

std::vector<PixelPoint> pathOf(const Motion& motion, const Twitch& twitch, double advance) {
  std::vector<PixelPoint> raw;
  Values length{0.0};
  const PixelPoint start{valueAt(motion.along, twitch.start_s), valueAt(motion.up, twitch.start_s)};
  const auto add = [&](double t) {
    const PixelPoint at = PixelPoint{valueAt(motion.along, t), valueAt(motion.up, t)} - start;
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

void measureStop(const Motion& motion, const Twitch& twitch, Measured& out) {
  const Series speed = motion.speed.between(twitch.peak_s, twitch.end_s);
  for (std::size_t i = 1; i < speed.size(); ++i) {
    if (speed.y[i] >= kTwitchStopShare * twitch.peakSpeed) continue;
    const double stop_s = crossing(speed, i, kTwitchStopShare * twitch.peakSpeed);
    out.stopTime.push_back(stop_s - twitch.peak_s);
    out.stopDistance.push_back(valueAt(motion.along, stop_s) - valueAt(motion.along, twitch.peak_s));
    return;
  }
}

void measureSpringBack(const Motion& motion, const Twitch& twitch, double advance, Measured& out) {
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
  if (to - from < kLeastPause_s) return;
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

Measured measure(const PassTraces& traces, const Motion& motion, const std::vector<Twitch>& twitches) {
  Measured out;
  const double face = median(traces.bodyAlong.y) < 0.0 ? -1.0 : 1.0;
  for (std::size_t i = 0; i < twitches.size(); ++i) {
    const Twitch& t = twitches[i];
    const double along = valueAt(motion.along, t.furthest_s) - valueAt(motion.along, t.start_s);
    if (along <= 0.0 || t.leftOut) continue;
    const double aside = valueAt(motion.up, t.furthest_s) - valueAt(motion.up, t.start_s);
    out.advance.push_back(along);
    out.heading_rad.push_back(std::atan2(aside, along));
    out.paths.push_back(pathOf(motion, t, along));
    measureStop(motion, t, out);
    measureSpringBack(motion, t, along, out);
    measurePause(traces, t, face, out);
    if (i + 1 < twitches.size() && !twitches[i + 1].leftOut)
      out.rise.push_back(valueAt(motion.up, twitches[i + 1].start_s) - valueAt(motion.up, t.start_s));
  }
  return out;
}

/// Writes medians over the twitches with their uncertainty.
class TwitchSheet {
 public:
  TwitchSheet(const PassTraces& traces, ReadingSheet& sheet) : traces_(traces), sheet_(sheet) {}

  void give(const char* name, double value, double u95, double n, std::vector<UncertaintyPart> parts = {}) {
    Estimate e{value, u95, n, gradeOf(value, u95), {}, std::move(parts)};
    if (n < kFewestTwitches) {
      e.grade = Grade::Poor;
      e.notes.push_back(fmt::format("from {:.0f} twitches only; 3 or more are wanted", n));
    }
    sheet_.give(name, e);
  }
  /// `floor` is the part that no averaging removes, in the reading's unit.
  void median(const char* name, const Values& values, double floor, const char* why) {
    if (values.empty()) return sheet_.refuse(name, why);
    give(name, fin::median(values), std::hypot(medianU95(values), floor), static_cast<double>(values.size()));
  }
  /// A median length: the scale has its share.
  void length(const char* name, const Values& values, const char* why) {
    if (values.empty()) return sheet_.refuse(name, why);
    const double middle = fin::median(values);
    std::vector<UncertaintyPart> parts{
        {UncertaintySource::Scatter, medianU95(values)},
        {UncertaintySource::Marks, placeU95()},
        {UncertaintySource::Scale, std::abs(middle) * traces_.scaleRelativeU95}};
    const double u95 = together(parts);
    give(name, middle, u95, static_cast<double>(values.size()), std::move(parts));
  }
  [[nodiscard]] double placeU95() const { return kPlace_px * traces_.unitPerPixel; }
  [[nodiscard]] const PassTraces& traces() const { return traces_; }
  ReadingSheet& sheet() { return sheet_; }

 private:
  const PassTraces& traces_;
  ReadingSheet& sheet_;
};

void readCadence(const std::vector<Twitch>& twitches, TwitchSheet& out) {
  Values gaps;
  for (std::size_t i = 1; i < twitches.size(); ++i)
    gaps.push_back(twitches[i].start_s - twitches[i - 1].start_s);
  const auto counting = static_cast<double>(
      std::count_if(twitches.begin(), twitches.end(), [](const Twitch& t) { return !t.leftOut; }));
  out.give("twitch_count", counting, 0.0, counting);
  const double frame_s = 1.0 / std::max(out.traces().frameRate_Hz, 1.0);
  out.median("twitch_interval", gaps, 0.5 * frame_s, "one twitch alone has no interval; film at least two");
  if (gaps.size() < 2) {
    out.sheet().refuse("twitch_interval_variation", "three twitches at least are needed");
    return;
  }
  const auto n = static_cast<double>(gaps.size());
  const double mean = std::accumulate(gaps.begin(), gaps.end(), 0.0) / n;
  double squares = 0.0;
  for (const double g : gaps) squares += (g - mean) * (g - mean);
  const double variation = 100.0 * std::sqrt(squares / (n - 1.0)) / mean;
  out.give("twitch_interval_variation", variation,
           std::hypot(1.96 * variation / std::sqrt(2.0 * (n - 1.0)), 100.0 * 0.3 * frame_s / mean), n);
}

/// How alike the twitches are: spread of their headings, and distance of their paths from each other.
void readLikeness(const Measured& m, TwitchSheet& out) {
  const auto n = static_cast<double>(m.heading_rad.size());
  if (n < kFewestTwitches) {
    for (const char* name : {"dart_spread", "erraticness"})
      out.sheet().refuse(name, "at least three twitches are needed to tell how alike they are");
    return;
  }
  double c = 0.0;
  double s = 0.0;
  for (const double h : m.heading_rad) {
    c += std::cos(h) / n;
    s += std::sin(h) / n;
  }
  const double noise = out.placeU95() / median(m.advance);
  const double spread =
      std::sqrt(std::max(-2.0 * std::log(std::min(std::hypot(c, s), 1.0)), 0.0)) * kDegreesPerRadian;
  out.give("dart_spread", spread,
           std::hypot(1.96 * spread / std::sqrt(2.0 * (n - 1.0)), noise * kDegreesPerRadian * 0.5), n);
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
  out.give("erraticness", mean, std::hypot(1.96 * robustSpread(apart) / std::sqrt(n), 50.0 * noise), n);
}

void readPauses(const Measured& m, TwitchSheet& out) {
  const char* why = "no pause is long enough to be still; pause for a second or more";
  // How well a single pause tells its slope: with few of them their own spread says little.
  const double each = m.driftU95.empty() ? 0.0
                                         : kMedianOverMean * median(m.driftU95) /
                                               std::sqrt(static_cast<double>(m.driftU95.size()));
  out.median("pause_drift", m.drift, std::hypot(kLeastDrift_mm_s, each), why);
  const double turn = out.placeU95() / out.traces().bodyLength * kDegreesPerRadian;
  out.median("pause_attitude", m.attitude, std::hypot(turn, kPlumbU95_deg), why);
  if (m.drift.empty()) return out.sheet().refuse("pause_class", why);
  const double drift = median(m.drift);
  out.sheet().give("pause_class",
                   drift > kHolds_mm_s    ? "rises"
                   : drift < -kHolds_mm_s ? "sinks"
                                          : "holds",
                   {fmt::format("holds within ± {:.0f} mm/s", kHolds_mm_s)},
                   static_cast<double>(m.drift.size()));
}

void readWalk(const Measured& m, TwitchSheet& out) {
  const Values& h = m.heading_rad;
  if (h.size() < 3) {
    for (const char* name : {"side_switch", "swing_angle"})
      out.sheet().refuse(name, "at least three twitches are needed");
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
  out.give("side_switch", 100.0 * switches / n, 100.0 / n, n);
  out.median("swing_angle", swings, std::sqrt(2.0) * out.placeU95() / median(m.advance) * kDegreesPerRadian,
             "");
}

}  // namespace

std::vector<Twitch> findTwitches(const PassTraces& traces, const std::optional<TwitchStarts>& said) {
  const Motion motion = motionOf(traces);
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

void readTwitch(const PassTraces& traces, Protocol protocol, View view, ReadingSheet& sheet,
                const std::optional<TwitchStarts>& said) {
  if (traces.frames() < 8) return;
  const Motion motion = motionOf(traces);
  const std::vector<Twitch> twitches = findTwitches(traces, said);
  if (twitches.empty()) {
    for (const ReadingSpec& spec : readingsOf(protocol))
      sheet.refuse(spec.name, "no twitch is in view; choose a window with twitches in it");
    return;
  }
  for (const Twitch& t : twitches) sheet.evidence().twitches.push_back({{t.start_s, t.end_s}, t.leftOut});
  if (std::all_of(twitches.begin(), twitches.end(), [](const Twitch& t) { return t.leftOut; })) {
    for (const ReadingSpec& spec : readingsOf(protocol))
      sheet.refuse(spec.name, "every twitch was left out; let one count again");
    return;
  }
  const Measured m = measure(traces, motion, twitches);
  TwitchSheet out(traces, sheet);
  readCadence(twitches, out);
  out.length("advance", m.advance, "no twitch goes forward in view");
  out.length("spring_back", m.springBack, "no twitch goes forward in view");
  const double share = m.advance.empty() ? 0.0 : 100.0 * out.placeU95() / median(m.advance);
  out.median("spring_back_ratio", m.springRatio, share, "no twitch goes forward in view");
  const double frame_s = 1.0 / traces.frameRate_Hz;
  if (!m.springRatio.empty() && median(m.springRatio) < 100.0 * kLeastBackShare) {
    sheet.refuse("spring_back_time", "it hardly springs back, so that no time can be told for it");
  } else {
    out.median("spring_back_time", m.springTime, frame_s, "it does not spring back in view");
  }
  out.median("stop_time", m.stopTime, frame_s, "no twitch comes to a stop in view");
  out.length("stop_distance", m.stopDistance, "no twitch comes to a stop in view");
  readLikeness(m, out);
  if (view == View::Side) {
    readPauses(m, out);
    out.length("rise_per_twitch", m.rise, "one twitch alone does not tell what a twitch adds");
  }
  if (protocol == Protocol::Walk) readWalk(m, out);
}

}  // namespace fin
