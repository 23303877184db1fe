// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/pacing.h"

#include <gtest/gtest.h>

#include "core/planning/cautions.h"
#include "core/planning/questions.h"
#include "core/readings/sheet.h"

namespace fin {
namespace {

TEST(Cadence, RefusesWhatNoHandCanKeep) {
  EXPECT_TRUE(Cadence{}.validate());
  EXPECT_TRUE((Cadence{1, Seconds(0.0), Seconds(0.5)}.validate())) << "one twitch has nothing between";
  for (const auto& [cadence, key] : {std::pair(Cadence{0, Seconds(0.6), Seconds(2.0)}, "twitches"),
                                     {Cadence{2, Seconds(0.0), Seconds(2.0)}, "between"},
                                     {Cadence{2, Seconds(-1.0), Seconds(2.0)}, "between"},
                                     {Cadence{2, Seconds(0.6), Seconds(0.0)}, "pause"}}) {
    const auto ok = cadence.validate();
    ASSERT_FALSE(ok);
    EXPECT_EQ(ok.error().where, key);
  }
}

TEST(Cadence, HasItsBeatsInGroups) {
  const Cadence c{3, Seconds(0.5), Seconds(2.0)};
  EXPECT_NEAR(c.cycle().value(), 3.0, 1e-12);
  const double beats[] = {0.0, 0.5, 1.0, 3.0, 3.5, 4.0, 6.0};
  for (std::size_t n = 0; n < std::size(beats); ++n) {
    EXPECT_NEAR(c.beat(n).value(), beats[n], 1e-12) << n;
    EXPECT_EQ(c.beatFrom(Seconds(beats[n])), n);
    EXPECT_EQ(c.beatFrom(Seconds(beats[n] - 0.1)), n) << "the one to come";
  }
  EXPECT_NEAR(c.beat(30000).value(), 30000.0, 1e-6) << "no error adds up over eight hours";
}

TEST(KeptCadence, IsHowFarTheHandsIntervalsAreFromTheBeats) {
  const Cadence c{2, Seconds(0.6), Seconds(2.0)};
  const auto exact = keptTo(c, {1.0, 1.6, 3.6, 4.2, 6.2});
  ASSERT_TRUE(exact);
  EXPECT_EQ(exact->intervals, 4U);
  EXPECT_NEAR(exact->off_percent, 0.0, 1e-9);
  // A tenth late within the group, a tenth early over the pause.
  const auto uneven = keptTo(c, {0.0, 0.66, 2.46, 3.12, 4.92});
  ASSERT_TRUE(uneven);
  EXPECT_NEAR(uneven->off_percent, 10.0, 1e-6);
  EXPECT_FALSE(keptTo(c, {0.0, 0.6})) << "one interval tells nothing";
  EXPECT_FALSE(keptTo(Cadence{0, Seconds(1.0), Seconds(1.0)}, {0.0, 1.0, 2.0}));
}

TEST(HandleTurns, AreSpeedOverLineATurn) {
  EXPECT_NEAR(*handleTurnsPerMinute(MillimetresPerSecond(350.0), Millimetres(700.0)), 30.0, 1e-12);
  EXPECT_FALSE(handleTurnsPerMinute(MillimetresPerSecond(0.0), Millimetres(700.0)));
  EXPECT_FALSE(handleTurnsPerMinute(MillimetresPerSecond(300.0), Millimetres(-1.0)));
}

TEST(Questions, ProposePassesThatShowSomething) {
  for (const Question& q : questions()) {
    EXPECT_EQ(questionNamed(q.key), &q) << q.key;
    EXPECT_TRUE(q.asked.ends_with("?")) << q.asked;
    ASSERT_FALSE(q.proposals.empty()) << q.key;
    for (const Proposal& p : q.proposals) {
      EXPECT_GE(p.passes, 1) << q.key;
      EXPECT_FALSE(p.shows.empty()) << q.key;
      const PassNeeds needs{p.protocol, p.view, p.marks, true, true, true};
      const auto specs = readingsOf(p.protocol);
      EXPECT_TRUE(std::any_of(specs.begin(), specs.end(),
                              [&](const ReadingSpec& s) { return whyNot(s, needs).empty(); }))
          << q.key << ": with these marks and this view nothing could be read";
    }
  }
  EXPECT_EQ(questionNamed("no such question"), nullptr);
}

TEST(Cautions, AreSaidAtEveryStepWhereTheyMatter) {
  std::size_t said = 0;
  for (const Step step : {Step::Rack, Step::Water, Step::Cameras, Step::Sheet, Step::Poolside,
                          Step::OnTheWater, Step::Catching}) {
    for (const Caution& c : cautionsFor(step)) {
      EXPECT_EQ(c.step, step);
      EXPECT_FALSE(c.heading.empty());
      EXPECT_LE(c.brief.size(), 160U) << "one line: " << c.brief;
      EXPECT_GT(c.full.size(), c.brief.size()) << c.heading;
      ++said;
    }
  }
  EXPECT_EQ(said, cautions().size()) << "none is left out";
}

}  // namespace
}  // namespace fin
