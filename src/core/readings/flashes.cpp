// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/flashes.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <optional>

#include "core/signals/count_intervals.h"

namespace fin {
namespace {

constexpr double kSpreads = 4.0;
constexpr double kShareOfMedian = 0.1;
constexpr double kDipShare = 0.5;
constexpr double kWhite = 254.0;
constexpr std::size_t kFewestFrames = 8;

double flashLevel(const Series& brightness) {
  const double middle = median(brightness.y);
  return middle + std::max(kSpreads * robustSpread(brightness.y), kShareOfMedian * middle);
}

/// Why flashes cannot be told; empty where they can.
const char* whyNoFlashes(const Series& brightness) {
  if (brightness.size() < kFewestFrames) return "the lure's brightness was not seen";
  if (flashLevel(brightness) > kWhite)
    return "the lure is so bright in the picture that a flash would not show: expose less";
  return "";
}

std::size_t countWithin(const std::vector<double>& times, const TimeSpan& span) {
  return static_cast<std::size_t>(
      std::count_if(times.begin(), times.end(), [&](double t) { return t >= span.from_s && t < span.to_s; }));
}

}  // namespace

std::vector<double> flashesIn(const Series& brightness) {
  std::vector<double> out;
  if (brightness.size() < kFewestFrames) return out;
  const double middle = median(brightness.y);
  const double level = flashLevel(brightness);
  double top = 0.0;     // of the flash that is open, over the median
  double lowest = 0.0;  // since then
  for (std::size_t i = 1; i + 1 < brightness.size(); ++i) {
    const double over = brightness.y[i] - middle;
    lowest = std::min(lowest, over);
    const bool peak = brightness.y[i] >= level && brightness.y[i] > brightness.y[i - 1] &&
                      brightness.y[i] >= brightness.y[i + 1];
    if (!peak) continue;
    if (out.empty() || lowest <= kDipShare * std::min(top, over)) {
      out.push_back(brightness.t_s[i]);
      top = over;
    } else if (over > top) {
      out.back() = brightness.t_s[i];
      top = over;
    }
    lowest = over;
  }
  return out;
}

void readTwitchFlashes(const Series& brightness, std::span<const TwitchSpan> twitches, ReadingSheet& sheet) {
  if (twitches.empty()) return;
  if (const std::string why = whyNoFlashes(brightness); !why.empty()) {
    for (const ReadingId id : {ReadingId::FlashesPerTwitch, ReadingId::FlashShare}) sheet.refuse(id, why);
    return;
  }
  const std::vector<double> flashes = flashesIn(brightness);
  std::size_t counted = 0, all = 0, flashing = 0;
  for (const TwitchSpan& twitch : twitches) {
    if (twitch.leftOut) continue;
    ++counted;
    const std::size_t seen = countWithin(flashes, twitch.span);
    all += seen;
    flashing += seen > 0 ? 1 : 0;
  }
  const auto n = static_cast<double>(counted);
  if (counted == 0) return;
  const CountInterval number = garwood(all);
  Estimate each{.value = static_cast<double>(all) / n, .u95 = 0.5 * (number.to - number.from) / n, .n = n};
  each.grade = Grade::Fair;
  each.notes.push_back("light that dances over the lure counts too");
  sheet.give(ReadingId::FlashesPerTwitch, each);
  const CountInterval share = wilson(flashing, counted);
  Estimate of{
      .value = 100.0 * static_cast<double>(flashing) / n, .u95 = 50.0 * (share.to - share.from), .n = n};
  of.grade = Grade::Fair;
  of.notes.push_back(fmt::format("{:.0f} to {:.0f} % by Wilson", 100.0 * share.from, 100.0 * share.to));
  sheet.give(ReadingId::FlashShare, of);
}

void readFallFlashes(const Series& brightness, ReadingSheet& sheet) {
  const std::optional<TimeSpan>& steady = sheet.evidence().steady;
  if (!steady) return sheet.refuse(ReadingId::FallFlashRate, "no steady part of the fall was found");
  if (const std::string why = whyNoFlashes(brightness); !why.empty())
    return sheet.refuse(ReadingId::FallFlashRate, why);
  const std::size_t seen = countWithin(flashesIn(brightness), *steady);
  const double span_s = steady->to_s - steady->from_s;
  const CountInterval number = garwood(seen);
  Estimate rate{.value = static_cast<double>(seen) / span_s,
                .u95 = 0.5 * (number.to - number.from) / span_s,
                .n = static_cast<double>(seen)};
  rate.grade = worse(gradeOf(rate.value, rate.u95), Grade::Fair);
  rate.notes.push_back(
      fmt::format("{:.2f} to {:.2f} a second by Garwood; light that dances over the lure counts too",
                  number.from / span_s, number.to / span_s));
  sheet.give(ReadingId::FallFlashRate, rate);
}

}  // namespace fin
