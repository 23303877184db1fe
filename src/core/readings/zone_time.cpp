// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/zone_time.h"

#include <fmt/format.h>
#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <numeric>
#include <random>

namespace fin {
namespace {

constexpr double kLongestZone_s = 60.0;
constexpr double kStep_s = 0.02;
constexpr double kLongerThanFilmed = 1.5;
constexpr double kLastOfPause = 0.3;
constexpr std::size_t kFewest = 6;
constexpr int kRuns = 400;
constexpr int kRunsOfADraw = 60;
constexpr int kDraws = 100;
constexpr double kTouches_mm = 1e-6;

/// A path at even steps up to the interval, gone on where it is shorter.
struct Stepped {
  std::vector<double> along_mm;
  std::vector<double> up_mm;
};

double at(const std::vector<double>& t, const std::vector<double>& y, double when) {
  const auto next = std::upper_bound(t.begin(), t.end(), when);
  if (next == t.begin()) return y.front();
  if (next == t.end()) return y.back();
  const auto i = static_cast<std::size_t>(next - t.begin());
  const double step = t[i] - t[i - 1];
  return step > 0.0 ? y[i - 1] + (y[i] - y[i - 1]) * (when - t[i - 1]) / step : y[i];
}

Stepped steppedTo(const TwitchPath& path, double interval_s) {
  Stepped out;
  const double end_s = path.t_s.back();
  const double from_s = end_s - kLastOfPause * std::max(end_s - path.rearmost_s, kStep_s);
  const auto gone = [&](const std::vector<double>& y, double when) {
    if (when <= end_s) return at(path.t_s, y, when);
    return y.back() + (y.back() - at(path.t_s, y, from_s)) / (end_s - from_s) * (when - end_s);
  };
  const auto steps = static_cast<std::size_t>(std::lround(interval_s / kStep_s));
  for (std::size_t i = 1; i <= steps; ++i) {
    const double when = interval_s * static_cast<double>(i) / static_cast<double>(steps);
    out.along_mm.push_back(gone(path.along_mm, when));
    out.up_mm.push_back(gone(path.up_mm, when));
  }
  return out;
}

/// One lure's seconds in the box.
double oneRun(const std::vector<const Stepped*>& twitches, const Zone& zone, double step_s,
              std::mt19937& random) {
  std::uniform_int_distribution<std::size_t> which(0, twitches.size() - 1);
  double along = -zone.half_mm;
  double up = 0.0;
  double inside_s = 0.0;
  for (double gone_s = 0.0; gone_s < kLongestZone_s;) {
    const Stepped& twitch = *twitches[which(random)];
    for (std::size_t i = 0; i < twitch.along_mm.size() && gone_s < kLongestZone_s; ++i, gone_s += step_s) {
      if (std::abs(along + twitch.along_mm[i]) <= zone.half_mm + kTouches_mm &&
          std::abs(up + twitch.up_mm[i]) <= zone.halfHeight_mm + kTouches_mm)
        inside_s += step_s;
    }
    along += twitch.along_mm.back();
    up += twitch.up_mm.back();
    if (along >= zone.half_mm - kTouches_mm || std::abs(up) > zone.halfHeight_mm + kTouches_mm) break;
  }
  return inside_s;
}

struct MeanAndTenth {
  double mean = 0.0;
  double tenth = 0.0;
};
MeanAndTenth manyRuns(const std::vector<const Stepped*>& twitches, const Zone& zone, double step_s, int runs,
                      std::mt19937& random) {
  std::vector<double> seconds;
  for (int i = 0; i < runs; ++i) seconds.push_back(oneRun(twitches, zone, step_s, random));
  std::sort(seconds.begin(), seconds.end());
  return {std::accumulate(seconds.begin(), seconds.end(), 0.0) / runs,
          seconds[static_cast<std::size_t>(runs / 10)]};
}

double spreadOf(const std::vector<double>& values) {
  const double mean = std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
  double squares = 0.0;
  for (const double v : values) squares += (v - mean) * (v - mean);
  return std::sqrt(squares / static_cast<double>(values.size() - 1));
}

}  // namespace

std::vector<TwitchPath> twitchPaths(const TwitchMotion& motion, const std::vector<Twitch>& twitches) {
  std::vector<TwitchPath> out;
  for (const Twitch& twitch : twitches) {
    const Series along = motion.along.between(twitch.start_s, twitch.end_s);
    const Series up = motion.across.between(twitch.start_s, twitch.end_s);
    if (twitch.leftOut || along.size() < 4) continue;
    TwitchPath path{.rearmost_s = twitch.rearmost_s - twitch.start_s};
    for (std::size_t i = 0; i < along.size(); ++i) {
      path.t_s.push_back(along.t_s[i] - twitch.start_s);
      path.along_mm.push_back(along.y[i] - along.y.front());
      path.up_mm.push_back(up.y[i] - up.y.front());
    }
    out.push_back(std::move(path));
  }
  return out;
}

Result<ZoneSeconds> secondsInZone(const std::vector<TwitchPath>& paths, const Zone& zone) {
  const auto n = static_cast<double>(paths.size());
  if (paths.size() < kFewest)
    return failure(ErrorCode::Unsupported,
                   fmt::format("six twitches are needed, {} are there", paths.size()));
  std::vector<double> rearmost, filmed;
  for (const TwitchPath& path : paths) {
    rearmost.push_back(path.rearmost_s);
    filmed.push_back(path.t_s.back());
  }
  if (zone.interval_s < median(rearmost))
    return failure(
        ErrorCode::Unsupported,
        fmt::format("twitched every {:.2f} s it would not have come to its rearmost place ({:.2f} s)",
                    zone.interval_s, median(rearmost)));
  if (zone.interval_s > kLongerThanFilmed * median(filmed))
    return failure(ErrorCode::Unsupported,
                   fmt::format("the pauses were filmed to {:.2f} s only: for {:.2f} s film longer ones",
                               median(filmed), zone.interval_s));
  std::vector<Stepped> stepped;
  std::vector<const Stepped*> all;
  for (const TwitchPath& path : paths) stepped.push_back(steppedTo(path, zone.interval_s));
  for (const Stepped& one : stepped) all.push_back(&one);
  const double step_s = zone.interval_s / static_cast<double>(stepped.front().along_mm.size());
  std::mt19937 random(1);
  const MeanAndTenth whole = manyRuns(all, zone, step_s, kRuns, random);
  std::vector<double> means, tenths;
  std::uniform_int_distribution<std::size_t> which(0, all.size() - 1);
  for (int draw = 0; draw < kDraws; ++draw) {
    std::vector<const Stepped*> anew;
    while (anew.size() < all.size()) anew.push_back(all[which(random)]);
    const MeanAndTenth drawn = manyRuns(anew, zone, step_s, kRunsOfADraw, random);
    means.push_back(drawn.mean);
    tenths.push_back(drawn.tenth);
  }
  const double wider =
      boost::math::quantile(boost::math::students_t(n - 1.0), 0.975) * std::sqrt(n / (n - 1.0));
  const auto told = [&](double value, const std::vector<double>& drawn) {
    Estimate out{.value = value, .n = n};
    out.setUncertainty(
        {{UncertaintySource::Scatter, wider * spreadOf(drawn)}, {UncertaintySource::FrameTime, step_s}});
    out.grade = gradeOf(value, out.u95);
    out.notes.push_back(fmt::format("{:.0f} mm long, {:.0f} mm high, twitched every {:.2f} s",
                                    2.0 * zone.half_mm, 2.0 * zone.halfHeight_mm, zone.interval_s));
    return out;
  };
  return ZoneSeconds{told(whole.mean, means), told(whole.tenth, tenths)};
}

void readZone(const TwitchMotion& motion, const std::vector<Twitch>& twitches, const Thresholds& thresholds,
              ReadingSheet& sheet) {
  const std::vector<TwitchPath> paths = twitchPaths(motion, twitches);
  Zone zone{thresholds.zoneHalf_mm, thresholds.zoneHalfHeight_mm, thresholds.zoneInterval_s};
  if (zone.interval_s <= 0.0) {
    std::vector<double> filmed;
    for (const TwitchPath& path : paths) filmed.push_back(path.t_s.back());
    zone.interval_s = median(filmed);
  }
  const auto seconds = secondsInZone(paths, zone);
  if (!seconds) {
    for (const ReadingId id : {ReadingId::ZoneTime, ReadingId::ZoneTenth})
      sheet.refuse(id, seconds.error().message);
    return;
  }
  sheet.give(ReadingId::ZoneTime, seconds->mean);
  sheet.give(ReadingId::ZoneTenth, seconds->tenth);
}

}  // namespace fin
