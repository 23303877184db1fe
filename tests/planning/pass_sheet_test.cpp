// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/pass_sheet.h"
#include "core/planning/replan.h"

#include <gtest/gtest.h>

#include <map>
#include <set>

#include "core/planning/day_plan.h"
#include "core/planning/pacing.h"
#include "core/planning/questions.h"

namespace fin {
namespace {

const std::vector<RigId> kRigs{11, 12, 13, 14, 15};

SheetOptions options(int repeats, unsigned seed) {
  SheetOptions out;
  out.tasks = {{Protocol::Fall, View::Side, {}}, {Protocol::Retrieve, View::Top, {200.0, 300.0}}};
  out.repeats = repeats;
  out.seed = seed;
  return out;
}

TEST(PassSheet, HoldsEveryRigTaskAndSpeedOnceInEveryBlock) {
  const auto sheet = makeSheet(kRigs, options(3, 7));
  ASSERT_TRUE(sheet);
  ASSERT_EQ(sheet->size(), 3U * 5U * 3U);
  std::set<std::tuple<int, RigId, Protocol, double>> seen;
  std::set<PlannedPassId> ids;
  for (const PlannedPass& p : *sheet) {
    EXPECT_TRUE(seen.insert({p.block, p.rig, p.protocol, p.speed_mm_s.value_or(0.0)}).second);
    EXPECT_TRUE(ids.insert(p.id).second);
  }
}

std::vector<RigId> rigOrder(const std::vector<PlannedPass>& sheet, int block) {
  std::vector<RigId> out;
  for (const PlannedPass& p : sheet) {
    if (p.block == block && (out.empty() || out.back() != p.rig)) out.push_back(p.rig);
  }
  return out;
}

TEST(PassSheet, PutsEveryRigInEveryPlaceOnceOverAsManyBlocks) {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const auto sheet = makeSheet(kRigs, options(5, seed));
    std::set<std::pair<RigId, std::size_t>> places;
    for (int block = 1; block <= 5; ++block) {
      const std::vector<RigId> order = rigOrder(*sheet, block);
      ASSERT_EQ(order.size(), 5U);
      for (std::size_t i = 0; i < 5; ++i) EXPECT_TRUE(places.insert({order[i], i}).second) << "seed " << seed;
    }
  }
}

TEST(PassSheet, FavoursNoRigOverManySeeds) {
  // First place in the first block: 2000 draws, each rig 400 ± 18 (binomial); five standard deviations
  // are 90.
  std::map<RigId, int> first;
  std::set<std::vector<RigId>> orders;
  for (unsigned seed = 1; seed <= 2000; ++seed) {
    const auto order = rigOrder(*makeSheet(kRigs, options(1, seed)), 1);
    ++first[order.front()];
    orders.insert(order);
  }
  for (RigId rig : kRigs) EXPECT_NEAR(first[rig], 400, 90) << rig.value();
  EXPECT_GT(orders.size(), 60U);
}

TEST(PassSheet, IsMadeAgainFromItsSeed) {
  EXPECT_EQ(*makeSheet(kRigs, options(3, 42)), *makeSheet(kRigs, options(3, 42)));
  EXPECT_NE(*makeSheet(kRigs, options(3, 42)), *makeSheet(kRigs, options(3, 43)));
}

TEST(PassSheet, BringsTheControlRigBackToCatchDrift) {
  SheetOptions with = options(2, 3);
  with.controlRig = 11;
  with.controlEvery = 6;
  const auto sheet = makeSheet(kRigs, with);
  int since = 0;
  int controls = 0;
  for (const PlannedPass& p : *sheet) {
    if (p.control) {
      EXPECT_EQ(p.rig, 11);
      EXPECT_GE(since, 6);
      since = 0;
      ++controls;
    } else {
      ++since;
      // At most the passes of the rig that is on the line come after the sixth.
      EXPECT_LE(since, 6 + 2);
    }
  }
  EXPECT_GE(controls, 4);
}

TEST(PassSheet, HidesRigsBehindLettersOnABlindDay) {
  SheetOptions blind = options(2, 5);
  blind.blind = true;
  const auto sheet = makeSheet(kRigs, blind);
  std::map<RigId, std::string> labels;
  std::set<std::string> different;
  for (const PlannedPass& p : *sheet) {
    const auto [at, fresh] = labels.emplace(p.rig, p.label);
    EXPECT_EQ(at->second, p.label);
    different.insert(p.label);
  }
  EXPECT_EQ(different.size(), 5U);
}

TEST(PassSheet, AddsUpTheTimeThatIsLeft) {
  SheetOptions o = options(1, 1);
  auto sheet = *makeSheet(kRigs, o);
  EXPECT_EQ(timeFor(sheet, o).rigChanges, 5);
  EXPECT_DOUBLE_EQ(timeFor(sheet, o).minutes, 15 * 3.0 + 5 * 4.0);
  for (std::size_t i = 0; i < 3; ++i) sheet[i].state = PassState::Done;
  EXPECT_DOUBLE_EQ(timeFor(sheet, o).minutes, 12 * 3.0 + 4 * 4.0);
}

TEST(PassSheet, RefusesADayWithoutRigsOrTasks) {
  EXPECT_EQ(makeSheet({}, options(1, 1)).error().where, "rigs");
  EXPECT_EQ(makeSheet(kRigs, SheetOptions{}).error().where, "tasks");
}

TEST(PassForClip, GivesAClipToThePassThatWasBeingMade) {
  auto sheet = *makeSheet(kRigs, options(1, 1));
  for (std::size_t i = 0; i < 3; ++i) {
    sheet[i].state = PassState::Done;
    sheet[i].finished_s = 10000.0 + 200.0 * static_cast<double>(i + 1);
  }
  EXPECT_EQ(passForClip(sheet, 10150.0), 0U);
  EXPECT_EQ(passForClip(sheet, 10390.0), 1U);
  EXPECT_EQ(passForClip(sheet, 10900.0), 3U);  // after the last finished one: the next
  EXPECT_EQ(passForClip(sheet, 1000.0), 3U);   // a clock set back tells nothing
}

TEST(Questions, AskForEachProtocolAndViewOnceWithAllTheMarks) {
  const auto both = proposalsFor({"fall", "change", "wobble"});
  std::set<std::pair<Protocol, View>> seen;
  for (const Proposal& p : both) {
    EXPECT_TRUE(seen.insert({p.protocol, p.view}).second);
    EXPECT_FALSE(p.shows.empty());
    EXPECT_FALSE(p.cannotShow.empty());
  }
  EXPECT_EQ(both.size(), 2U);
  EXPECT_EQ(both[0].passes, 4);  // "change" wants more than "fall"
  for (const Question& q : questions()) EXPECT_EQ(questionNamed(q.key), &q);
}

TEST(Cadence, KeepsItsBeatsWithoutAddingUpErrors) {
  const Cadence cadence{2, Seconds(0.6), Seconds(2.0)};
  EXPECT_DOUBLE_EQ(cadence.cycle().value(), 2.6);
  EXPECT_DOUBLE_EQ(cadence.beat(0).value(), 0.0);
  EXPECT_DOUBLE_EQ(cadence.beat(1).value(), 0.6);
  EXPECT_DOUBLE_EQ(cadence.beat(2001).value(), 1000 * 2.6 + 0.6);
  EXPECT_EQ(cadence.beatFrom(Seconds(2.61)), 3U);
  EXPECT_FALSE((Cadence{0, Seconds(0.5), Seconds(1.0)}.validate()));
  EXPECT_DOUBLE_EQ(*handleTurnsPerMinute(MillimetresPerSecond(350.0), Millimetres(700.0)), 30.0);
}

TEST(Replanned, SkipsWhatIsSettledAndAddsBlocksOfTheRest) {
  SheetOptions options;
  options.tasks = {{Protocol::Fall, View::Side, {}}};
  options.repeats = 4;
  options.blind = true;
  auto sheet = *makeSheet({1, 2, 3, 4}, options);
  for (PlannedPass& pass : sheet) {
    if (pass.block <= 3) pass.state = PassState::Done;
  }
  const auto after = replanned(sheet, {1, 3}, 3, options, 100);
  ASSERT_TRUE(after) << after.error().message;
  std::map<RigId, int> planned;
  for (std::size_t i = 0; i < after->size(); ++i) {
    const PlannedPass& pass = (*after)[i];
    if (i < 12) {
      EXPECT_EQ(pass, sheet[i]) << "what was made stays";
    } else if (i < 16) {
      EXPECT_EQ(pass.state == PassState::Skipped, pass.rig == 2 || pass.rig == 4);
    }
    if (pass.state == PassState::Planned) ++planned[pass.rig];
    if (i >= 16) {
      EXPECT_GE(pass.id, 100);
      EXPECT_GT(pass.block, 4);
      const auto same = [&](const PlannedPass& p) { return p.rig == pass.rig; };
      EXPECT_EQ(pass.label, std::find_if(sheet.begin(), sheet.end(), same)->label);
    }
  }
  EXPECT_EQ(planned, (std::map<RigId, int>{{1, 3}, {3, 3}})) << "one of the old block, two new ones";
  EXPECT_EQ(replanned(sheet, {1, 3}, 1, options, 100)->size(), sheet.size());
  EXPECT_FALSE(replanned(sheet, {}, 1, options, 100));
}

}  // namespace
}  // namespace fin
