// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch_knocks.h"

#include <fmt/format.h>
#include <algorithm>
#include <boost/math/distributions/binomial.hpp>
#include <cmath>

#include "core/signals/count_intervals.h"
#include "core/signals/series.h"

namespace fin {
namespace {

constexpr double kBefore_s = 0.05;
constexpr double kLongest_s = 0.6;
constexpr double kOfInterval = 0.45;
constexpr double kSoundLate_s = 0.04;
constexpr double kChanceOfKnocks = 0.05;

}  // namespace

void readTwitchKnocks(std::span<const double> starts_s, std::span<const double> knocks_s,
                      ReadingSheet& sheet) {
  if (starts_s.empty()) return;
  std::vector<double> intervals;
  for (std::size_t i = 1; i < starts_s.size(); ++i) intervals.push_back(starts_s[i] - starts_s[i - 1]);
  const double reach = intervals.empty() ? kLongest_s : std::min(kLongest_s, kOfInterval * median(intervals));
  const auto within = [&](double from, double to) {
    std::vector<double> out;
    for (const double knock : knocks_s) {
      if (knock >= from && knock < to) out.push_back(knock);
    }
    return out;
  };
  double hits = 0.0, all = 0.0, alone = 0.0, before = 0.0, onlyBefore = 0.0;
  std::vector<double> delays;
  for (const double start : starts_s) {
    const auto heard = within(start - kBefore_s, start + reach);
    const bool earlier = !within(start - 2.0 * kBefore_s - reach, start - kBefore_s).empty();
    hits += heard.empty() ? 0.0 : 1.0;
    all += static_cast<double>(heard.size());
    before += earlier ? 1.0 : 0.0;
    alone += !heard.empty() && !earlier ? 1.0 : 0.0;
    onlyBefore += heard.empty() && earlier ? 1.0 : 0.0;
    if (!heard.empty()) delays.push_back(heard.front() - start);
  }
  const auto n = static_cast<double>(starts_s.size());
  const double differ = alone + onlyBefore;
  const double chance =
      differ < 1.0
          ? 1.0
          : boost::math::cdf(boost::math::complement(boost::math::binomial(differ, 0.5), alone - 1.0));
  Estimate share;
  share.value = 100.0 * hits / n;
  const CountInterval interval = wilson(static_cast<std::size_t>(hits), starts_s.size());
  share.u95 = 50.0 * (interval.to - interval.from);
  share.n = n;
  share.grade = chance < kChanceOfKnocks ? Grade::Fair : Grade::Poor;
  share.notes.push_back(fmt::format("{:.0f} to {:.0f} % by Wilson; in equal stretches just before {:.0f} %",
                                    100.0 * interval.from, 100.0 * interval.to, 100.0 * before / n));
  if (chance >= kChanceOfKnocks)
    share.notes.push_back("no more than just before the twitches: it may be chance");
  sheet.give(ReadingId::RattleShare, share);

  Estimate each;
  each.value = all / n;
  each.u95 = std::max(1.0 / n, kNormal95 * std::sqrt(std::max(all, 1.0)) / n);
  each.n = n;
  each.grade = share.grade;
  sheet.give(ReadingId::RattlesPerTwitch, each);
  if (delays.empty()) return sheet.refuse(ReadingId::RattleDelay, "no twitch knocks");
  Estimate delay;
  delay.value = median(delays);
  delay.setUncertainty({{UncertaintySource::Scatter, delays.size() > 1 ? medianU95(delays) : kLongest_s},
                        {UncertaintySource::FrameTime, kSoundLate_s}});
  delay.n = static_cast<double>(delays.size());
  delay.grade = worse(share.grade, Grade::Fair);
  sheet.give(ReadingId::RattleDelay, delay);
}

}  // namespace fin
