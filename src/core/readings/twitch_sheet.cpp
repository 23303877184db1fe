// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch_sheet.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <numeric>

namespace fin {
namespace {

constexpr double kStartsWithin_frames =
    0.25;  ///< of an interval between two starts, told between frames (95 %)
constexpr double kFewestTwitches = 3.0;
constexpr double kLost_s = 0.12;  ///< a longer gap may hide a movement
constexpr double kLostShare = 0.3;

/// The time over which the body was not seen, between frames in which it was.
double lostTime_s(const Series& seen) {
  const double longest_s = std::max(kLost_s, 2.5 * seen.spacing_s());
  double out = 0.0;
  for (std::size_t i = 1; i < seen.size(); ++i) {
    const double step_s = seen.t_s[i] - seen.t_s[i - 1];
    if (step_s > longest_s) out += step_s;
  }
  return out;
}

}  // namespace

double TwitchSheet::moveU95() const {
  return std::sqrt(0.5) * kMarkMoveU95.value() * traces_.unitPerPixel;
}

void TwitchSheet::give(ReadingId id, double value, std::vector<UncertaintyPart> parts, double n) {
  Estimate e;
  e.value = value;
  e.n = n;
  e.setUncertainty(std::move(parts));
  e.grade = gradeOf(value, e.u95);
  if (n < kFewestTwitches) {
    e.grade = Grade::Poor;
    e.notes.push_back(fmt::format("from {:.0f} {} only; 3 or more are wanted", n, words_.many));
  }
  sheet_.give(id, e);
}

void TwitchSheet::median(ReadingId id, const std::vector<double>& values, std::vector<UncertaintyPart> floor,
                         const char* why) {
  if (values.empty()) return sheet_.refuse(id, why);
  floor.push_back({UncertaintySource::Scatter, medianU95(values)});
  give(id, fin::median(values), std::move(floor), static_cast<double>(values.size()));
}

void TwitchSheet::length(ReadingId id, const std::vector<double>& values, const char* why,
                         double setUncertainty) {
  median(id, values,
         {{UncertaintySource::Marks, setUncertainty},
          {UncertaintySource::Scale, std::abs(fin::median(values)) * traces_.scaleRelativeU95}},
         why);
}

void TwitchSheet::cadence(const std::vector<Twitch>& twitches) {
  std::vector<double> gaps;
  for (std::size_t i = 1; i < twitches.size(); ++i)
    gaps.push_back(twitches[i].start_s - twitches[i - 1].start_s);
  const auto counting = static_cast<double>(
      std::count_if(twitches.begin(), twitches.end(), [](const Twitch& t) { return !t.leftOut; }));
  const double lost_s = lostTime_s(traces_.alongCentre);
  const double lostShare = lost_s / std::max(traces_.alongCentre.span_s(), 1e-9);
  if (lostShare > kLostShare) {
    const std::string why = fmt::format(
        "the lure was not seen for {:.0f} % of the time, in which there may be more {}; put the marks right "
        "there, or choose a window in which it is seen",
        100.0 * lostShare, words_.many);
    for (const ReadingId id : {words_.count, words_.interval, words_.variation}) sheet_.refuse(id, why);
    return;
  }
  // As many more may hide in the gaps as fit into them.
  const double hiding = gaps.empty() ? 0.0 : std::ceil(lost_s / fin::median(gaps));
  give(words_.count, counting, {{UncertaintySource::Scatter, lost_s > 0.0 ? std::max(1.0, hiding) : 0.0}},
       counting);
  const double frame_s = 1.0 / std::max(traces_.frameRate_Hz, 1.0);
  median(words_.interval, gaps, {{UncertaintySource::FrameTime, kStartsWithin_frames * frame_s}},
         "one alone has no interval; film at least two");
  if (gaps.size() < 2) {
    sheet_.refuse(words_.variation, "three at least are needed");
    return;
  }
  const auto n = static_cast<double>(gaps.size());
  const double mean = std::accumulate(gaps.begin(), gaps.end(), 0.0) / n;
  double squares = 0.0;
  for (const double g : gaps) squares += (g - mean) * (g - mean);
  const double variation = 100.0 * std::sqrt(squares / (n - 1.0)) / mean;
  give(words_.variation, variation,
       {{UncertaintySource::Scatter, kNormal95 * variation / std::sqrt(2.0 * (n - 1.0))},
        {UncertaintySource::FrameTime, 100.0 * 0.3 * frame_s / mean}},
       n);
}

bool canBeRead(const TwitchMotion& motion, const std::vector<Twitch>& twitches, bool said, Protocol protocol,
               TwitchWords words, ReadingSheet& sheet) {
  for (const Twitch& t : twitches) sheet.evidence().twitches.push_back({{t.start_s, t.end_s}, t.leftOut});
  std::string why;
  if (twitches.empty()) {
    why = fmt::format("no {} are in view; choose a window that has some", words.many);
  } else if (std::all_of(twitches.begin(), twitches.end(), [](const Twitch& t) { return t.leftOut; })) {
    why = fmt::format("all {} were left out; let one count again", words.many);
  }
  if (const std::size_t without = said ? 0 : pushesWithoutRest(motion, twitches);
      why.empty() && without > 0 && 2 * without >= twitches.size()) {
    why = fmt::format(
        "the {0} run into each other: {1} begin before it has come to rest; pause longer between "
        "them, or say where each starts",
        words.many, without);
  }
  if (why.empty()) return true;
  for (const ReadingSpec& spec : readingsOf(protocol)) sheet.refuse(spec.id, why);
  return false;
}

}  // namespace fin
