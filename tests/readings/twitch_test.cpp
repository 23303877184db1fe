// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch.h"

#include <gtest/gtest.h>

#include <array>
#include <cmath>
#include <functional>
#include <random>

#include "support/reading_words.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

constexpr double kTwitchRate_Hz = 120.0;

/// A bait that is pulled forward, springs back and waits, again and again; places in mm, exact but for
/// `scatter`.
struct JerkedBait {
  std::vector<double> starts_s{0.5, 1.6, 2.7, 3.8, 4.9};
  double end_s = 6.0;
  double advance_mm = 90.0;
  double back_mm = 20.0;
  double push_s = 0.12;  ///< of the way forward
  double back_s = 0.30;
  double drift_mm_s = 0.0;                                     ///< upwards, all along
  std::function<double(int)> aside = [](int) { return 0.0; };  ///< of the way forward, per twitch, mm
  double scatter_mm = 0.05;

  /// Half a cosine from 0 to 1.
  static double eased(double share) { return 0.5 - 0.5 * std::cos(M_PI * std::clamp(share, 0.0, 1.0)); }
  [[nodiscard]] PassTraces traces(unsigned seed = 1) const {
    std::mt19937 random(seed);
    std::normal_distribution<double> scatter(0.0, scatter_mm);
    PassTraces out;
    out.inMillimetres = true;
    out.unitPerPixel = 0.5;
    out.bodyLength = 80.0;
    out.frameRate_Hz = kTwitchRate_Hz;
    for (int n = 0; n < static_cast<int>(end_s * kTwitchRate_Hz); ++n) {
      const double t = n / kTwitchRate_Hz;
      double along = 0.0;
      double up = drift_mm_s * t;
      for (std::size_t i = 0; i < starts_s.size(); ++i) {
        const double since = t - starts_s[i];
        along += advance_mm * eased(since / push_s) - back_mm * eased((since - push_s) / back_s);
        up += aside(static_cast<int>(i)) * (eased(since / push_s) - eased((since - push_s) / back_s));
      }
      out.alongCentre.add(t, along + scatter(random));
      out.upCentre.add(t, up + scatter(random));
      out.acrossTail.add(t, 0.0);
      out.bodyAlong.add(t, 80.0 * std::cos(0.1));
      out.bodyUp.add(t, -80.0 * std::sin(0.1));
      out.axis.add(t, 0.0);
    }
    return out;
  }
  [[nodiscard]] ReadingSet read(Protocol protocol = Protocol::Twitch, View view = View::Side) const {
    ReadingSheet sheet;
    readTwitch(traces(), protocol, view, sheet);
    return sheet.complete({protocol, view, {MarkName::Nose, MarkName::Tail}, true, false, false});
  }
};

using test::valueOf;

std::string wordOf(const ReadingSet& set, ReadingId name) {
  return std::get<std::string>(set.find(name)->value);
}

/// Without what was seen from one time to another.
PassTraces without(PassTraces traces, double from_s, double to_s) {
  for (Series* series : {&traces.alongCentre, &traces.upCentre, &traces.acrossTail, &traces.bodyAlong,
                         &traces.bodyUp, &traces.axis}) {
    Series kept;
    for (std::size_t i = 0; i < series->size(); ++i) {
      if (series->t_s[i] < from_s || series->t_s[i] > to_s) kept.add(series->t_s[i], series->y[i]);
    }
    *series = std::move(kept);
  }
  return traces;
}

TEST(Twitch, CountsNoMoreSurelyThanTheLureWasSeen) {
  const PassTraces whole = JerkedBait{}.traces();
  const auto counted = [](const PassTraces& traces) {
    ReadingSheet sheet;
    readTwitch(traces, Protocol::Twitch, View::Side, sheet);
    return sheet.complete(
        {Protocol::Twitch, View::Side, {MarkName::Nose, MarkName::Tail}, true, false, false});
  };
  const ReadingSet seen = counted(whole);
  EXPECT_EQ(seen.find(ReadingId::TwitchCount)->u95, 0.0);
  // A second of six: one more may have happened there.
  const ReadingSet gap = counted(without(whole, 2.6, 3.6));
  EXPECT_EQ(valueOf(gap, ReadingId::TwitchCount), 4.0);
  EXPECT_GE(gap.find(ReadingId::TwitchCount)->u95, 1.0);
  const ReadingSet lost = counted(without(whole, 1.5, 4.7));
  EXPECT_EQ(lost.find(ReadingId::TwitchCount), nullptr);
  EXPECT_NE(test::whyRefused(lost, ReadingId::TwitchCount).find("not seen for 5"), std::string::npos)
      << test::whyRefused(lost, ReadingId::TwitchCount);
}

TEST(Twitch, ReadsAdvanceSpringBackAndStopAsTheyWereMade) {
  const ReadingSet set = JerkedBait{}.read();
  EXPECT_EQ(valueOf(set, ReadingId::TwitchCount), 5.0);
  EXPECT_NEAR(valueOf(set, ReadingId::TwitchInterval), 1.1, 0.005);
  EXPECT_LT(valueOf(set, ReadingId::TwitchIntervalVariation), 0.5);
  // The start is where a quarter of the fast speed is passed: a few per cent of the way are behind it then.
  EXPECT_NEAR(valueOf(set, ReadingId::Advance), 88.5, 2.0);
  EXPECT_NEAR(valueOf(set, ReadingId::SpringBack), 20.0, 0.5);
  EXPECT_NEAR(valueOf(set, ReadingId::SpringBackRatio), 100.0 * 20.0 / 88.5, 1.0);
  // Nine tenths of half a cosine: arccos(-0.8) / pi of its time.
  EXPECT_NEAR(valueOf(set, ReadingId::SpringBackTime), 0.30 * std::acos(-0.8) / M_PI, 0.02);
  // From the fastest (half way) to a tenth of it: sin falls to 0.1.
  EXPECT_NEAR(valueOf(set, ReadingId::StopTime), 0.12 * (0.5 - std::asin(0.1) / M_PI), 0.012);
  EXPECT_LT(valueOf(set, ReadingId::DartSpread), 0.3);
  EXPECT_LT(valueOf(set, ReadingId::Erraticness), 0.6);
}

TEST(Twitch, TellsWhatThePauseDoesAndHowTheBaitHangs) {
  for (const auto& [drift, word] : {std::pair(-25.0, "sinks"), {2.0, "holds"}, {18.0, "rises"}}) {
    JerkedBait jerks;
    jerks.drift_mm_s = drift;
    const ReadingSet set = jerks.read();
    EXPECT_NEAR(valueOf(set, ReadingId::PauseDrift), drift, 0.5);
    EXPECT_EQ(wordOf(set, ReadingId::PauseClass), word);
    EXPECT_NEAR(valueOf(set, ReadingId::PauseAttitude), 0.1 * kDegreesPerRadian, 0.01);
    EXPECT_NEAR(valueOf(set, ReadingId::RisePerTwitch), 1.1 * drift, 0.5);
  }
}

TEST(Twitch, NamesThePauseByTheTestersOwnThreshold) {
  JerkedBait jerks;
  jerks.drift_mm_s = 18.0;
  ReadingSheet sheet;
  readTwitch(jerks.traces(), Protocol::Twitch, View::Side, sheet, {}, {.holdsWithin_mm_s = 25.0});
  const ReadingSet set =
      sheet.complete({Protocol::Twitch, View::Side, {MarkName::Nose, MarkName::Tail}, true, false, false});
  EXPECT_EQ(wordOf(set, ReadingId::PauseClass), "holds");
  EXPECT_EQ(set.find(ReadingId::PauseClass)->notes.front(), "holds within ± 25 mm/s");
}

TEST(Twitch, IsErraticWhenEachGoesElsewhere) {
  JerkedBait jerks;
  jerks.aside = [](int i) { return std::array{30.0, -10.0, 5.0, -35.0, 20.0}[static_cast<std::size_t>(i)]; };
  const ReadingSet set = jerks.read();
  // Headings: arctan of 30, -10, 5, -35 and 20 over 90; their circular standard deviation by hand.
  double c = 0.0;
  double s = 0.0;
  for (const double a : {30.0, -10.0, 5.0, -35.0, 20.0}) {
    c += std::cos(std::atan2(a, 90.0)) / 5.0;
    s += std::sin(std::atan2(a, 90.0)) / 5.0;
  }
  EXPECT_NEAR(valueOf(set, ReadingId::DartSpread),
              std::sqrt(-2.0 * std::log(std::hypot(c, s))) * kDegreesPerRadian, 0.6);
  EXPECT_GT(valueOf(set, ReadingId::Erraticness), 10.0);
}

TEST(Twitch, CountsSidesWhenItWalks) {
  JerkedBait jerks;
  jerks.aside = [](int i) { return i % 2 == 0 ? 50.0 : -50.0; };
  const ReadingSet set = jerks.read(Protocol::Walk, View::Top);
  EXPECT_EQ(valueOf(set, ReadingId::SideSwitch), 100.0);
  EXPECT_NEAR(valueOf(set, ReadingId::SwingAngle), 2.0 * std::atan2(50.0, 88.5) * kDegreesPerRadian, 1.5);
  EXPECT_EQ(set.find(ReadingId::PauseDrift), nullptr);
}

TEST(Twitch, RefusesWhatADeadStopDoesNotShow) {
  JerkedBait jerks;
  jerks.back_mm = 2.0;
  const ReadingSet set = jerks.read();
  EXPECT_NEAR(valueOf(set, ReadingId::SpringBack), 2.0, 0.5);
  EXPECT_EQ(set.find(ReadingId::SpringBackTime), nullptr);
}

TEST(Twitch, TakesTheStartsAsAPersonPutThemRight) {
  const PassNeeds kSeen{Protocol::Twitch, View::Side, {MarkName::Nose, MarkName::Tail}, true, false, false};
  JerkedBait jerks;
  jerks.aside = [](int i) { return i == 2 ? 60.0 : 0.0; };  // one that went wrong
  const PassTraces traces = jerks.traces();
  const auto read = [&](const std::optional<TwitchStarts>& said) {
    ReadingSheet sheet;
    readTwitch(traces, Protocol::Twitch, View::Side, sheet, said);
    return sheet;
  };
  ReadingSheet found = read({});
  ASSERT_EQ(found.evidence().twitches.size(), 5U);
  TwitchStarts said;
  for (const TwitchSpan& twitch : found.evidence().twitches) said.starts_s.push_back(twitch.span.from_s);
  said.toggleExcluded(2.7);
  ReadingSheet without = read(said);
  EXPECT_TRUE(without.evidence().twitches[2].leftOut);
  const ReadingSet all = found.complete(kSeen);
  const ReadingSet four = without.complete(kSeen);
  EXPECT_EQ(valueOf(all, ReadingId::TwitchCount), 5.0);
  EXPECT_EQ(valueOf(four, ReadingId::TwitchCount), 4.0);
  EXPECT_GT(valueOf(all, ReadingId::DartSpread), 5.0);
  EXPECT_LT(valueOf(four, ReadingId::DartSpread), 1.0);
  EXPECT_EQ(valueOf(four, ReadingId::TwitchInterval), valueOf(all, ReadingId::TwitchInterval))
      << "the cadence is as it was";
  TwitchStarts none = said;
  none.leftOut_s = none.starts_s;
  const ReadingSet refused = read(none).complete(kSeen);
  EXPECT_TRUE(refused.readings.empty());
  EXPECT_TRUE(refused.refused[0].why.find("left out") != std::string::npos) << refused.refused[0].why;
  said.remove(4.9);
  said.add(3.0);
  ReadingSheet moved = read(said);
  EXPECT_EQ(moved.evidence().twitches.size(), 5U);
  EXPECT_EQ(moved.evidence().twitches[3].span.from_s, 3.0);
}

TEST(Twitch, RefusesTwitchesThatRunIntoEachOther) {
  JerkedBait hurried;
  hurried.back_mm = 0.0;
  hurried.push_s = 0.40;
  hurried.starts_s = {0.5, 0.86, 1.22, 1.58, 1.94, 2.30, 2.66, 3.02};
  hurried.end_s = 4.2;
  const ReadingSet set = hurried.read();
  EXPECT_TRUE(set.readings.empty());
  ASSERT_FALSE(set.refused.empty());
  EXPECT_NE(set.refused.front().why.find("run into each other"), std::string::npos)
      << set.refused.front().why;
}

TEST(Twitch, TellsWhatTheUncertaintyOfALengthComesFrom) {
  const ReadingSet set = JerkedBait{}.read();
  const Reading* advance = set.find(ReadingId::Advance);
  ASSERT_EQ(advance->parts.size(), 3U);
  EXPECT_NEAR(inQuadrature(advance->parts), *advance->u95, 1e-12);
  const auto marks = std::find_if(advance->parts.begin(), advance->parts.end(), [](const UncertaintyPart& p) {
    return p.source == UncertaintySource::Marks;
  });
  ASSERT_NE(marks, advance->parts.end());
  EXPECT_NEAR(marks->u95, std::sqrt(0.5) * 0.8 * 0.5, 1e-12)
      << "midway between two marks of 0.8 px, 0.5 mm each";
}

TEST(TwitchStarts, AreMovedBetweenTheirNeighboursOnly) {
  TwitchStarts starts{{1.0, 2.0, 3.0}, {2.0}};
  starts.move(2.1, 9.0);
  EXPECT_NEAR(starts.starts_s[1], 2.98, 1e-9);
  EXPECT_TRUE(starts.leavesOut(starts.starts_s[1])) << "it is still the one that does not count";
  starts.add(1.01);
  EXPECT_EQ(starts.starts_s.size(), 3U) << "there is one already";
  starts.add(0.2);
  EXPECT_EQ(starts.starts_s.front(), 0.2);
  starts.toggleExcluded(2.9);
  EXPECT_TRUE(starts.leftOut_s.empty());
  starts.move(3.0, 7.0);
  EXPECT_EQ(starts.starts_s.back(), 7.0);
  TwitchStarts none;
  none.remove(1.0);
  none.move(1.0, 2.0);
  none.toggleExcluded(1.0);
  EXPECT_EQ(none, TwitchStarts{});
}

TEST(Twitch, RefusesAWindowWithoutATwitchAndSaysSo) {
  JerkedBait still;
  still.starts_s.clear();
  const ReadingSet set = still.read();
  EXPECT_TRUE(set.readings.empty());
  for (const Refusal& r : set.refused) EXPECT_NE(r.why.find("no twitch"), std::string::npos) << r.id;
}

TEST(Twitch, IsPoorFromTwoAndRefusesLikenessThen) {
  JerkedBait two;
  two.starts_s = {0.5, 1.7};
  two.end_s = 3.0;
  const ReadingSet set = two.read();
  EXPECT_EQ(set.find(ReadingId::Advance)->grade, Grade::Poor);
  EXPECT_EQ(set.find(ReadingId::Erraticness), nullptr);
  EXPECT_EQ(set.find(ReadingId::TwitchIntervalVariation), nullptr);
}

}  // namespace
}  // namespace fin
