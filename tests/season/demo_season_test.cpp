// SPDX-License-Identifier: GPL-3.0-or-later
// The demo's autumn on the water, in the season's own figures.
#include "demo/demo_season.h"

#include <gtest/gtest.h>

#include "core/exchange/water_file.h"
#include "core/season/catches/catch_report.h"
#include "core/season/rule_record.h"
#include "demo/demo_passes.h"
#include "demo/demo_vote.h"

namespace fin {
namespace {

class DemoSeason : public testing::Test {
 protected:
  void SetUp() override {
    const std::pair<DemoRig, const char*> rigs[] = {
        {kVinto7, "Vinto 7"}, {kVinto4, "Vinto 4"}, {kMirk7, "Mirk"}, {kSkrell, "Skrell"}, {kOblig, "Oblig"},
        {kOblag, "Oblag"},    {kTavver, "Tavver"},  {kHasp, "Hasp"},  {kPellow, "Pellow"}};
    for (const auto& [rig, name] : rigs) {
      const ModelId model = static_cast<std::int64_t>(rig) + 100;
      rack_.models.push_back({.id = model, .name = name, .graded = rig != kPellow});
      rack_.rigs.push_back({.id = static_cast<std::int64_t>(rig), .model = model});
    }
    for (int n = 0; n < 3; ++n)
      rack_.pieces.push_back({.id = n + 1, .model = kVinto7 + 100, .paid = 1.9, .currency = "EUR"});
    rack_.pieces.push_back({.id = 9, .model = kVinto7 + 100, .state = PieceState::Spare, .paid = 50.0});
    DayPlan first;
    first.rack = rack_;
    days_ = demoWaterDays(first, 1.79e9);
    for (const DayPlan& day : days_) runs_.push_back(runOf(day.events, 2, day.events.back().at_s));
  }
  CatchReport report(const std::vector<TieCandidate>& measured = {}) {
    return catchReport(rack_, runs_, measured);
  }

  Rack rack_;
  std::vector<DayPlan> days_;
  std::vector<RunningDay> runs_;
};

TEST_F(DemoSeason, HasTheHoursAndFishOfItsStory) {
  const CatchReport all = report();
  ASSERT_EQ(all.rigs.size(), 8U);
  const auto of = [&all](const char* name) {
    for (const RigCatches& rig : all.rigs) {
      if (rig.rig == name) return rig;
    }
    return RigCatches{};
  };
  EXPECT_NEAR(of("Vinto 7").tally.hours, 6.5, 1e-9);
  EXPECT_EQ(of("Vinto 7").tally.fish, 9U);
  EXPECT_NEAR(of("Hasp").tally.hours, 7.0, 1e-9);
  EXPECT_EQ(of("Hasp").tally.fish, 3U);
  EXPECT_NEAR(of("Skrell").tally.hours, 5.0, 1e-9);
  EXPECT_EQ(of("Mirk").tally.lost, 1U);
  EXPECT_NEAR(all.a, 5.073538, 1e-5);
  EXPECT_EQ(all.rigs[0].rig, "Vinto 7");
  EXPECT_NEAR(all.rigs[0].shrunk.value, 0.970842, 1e-6);
  EXPECT_NEAR(of("Tavver").shrunk.value, 0.461389, 1e-6);
  EXPECT_NEAR(of("Vinto 7").perTenPaid->value, 15.789474, 1e-6) << "three pieces; the spare was never fished";
  EXPECT_FALSE(of("Hasp").perTenPaid) << "nothing was paid for it";
  EXPECT_TRUE(all.troubles.empty());
}

TEST_F(DemoSeason, HasTwelveBallotsThatTellSomeApart) {
  const Vote vote = demoVote(rack_);
  EXPECT_EQ(vote.ballots.size(), 12U);
  const VoteCount count = countVote(vote);
  EXPECT_TRUE(count.byVoters);
  EXPECT_FALSE(count.halfWins);
  EXPECT_EQ(count.askedTwice, 36U);
  EXPECT_EQ(count.rigs.front().rig, "Skrell");
  const auto apart =
      std::count_if(count.pairs.begin(), count.pairs.end(), [](const PreferredPair& p) { return p.apart(); });
  EXPECT_GT(apart, 0);
  EXPECT_LT(apart, 21);
}

TEST_F(DemoSeason, HoldsTwoRigsAgainstEachOtherInTheStretchesThatBothFished) {
  const CatchReport all = report();
  std::size_t planned = 0;
  for (const RigsByCatch& pair : all.pairs) {
    if (!pair.inBlocks) continue;
    ++planned;
    EXPECT_EQ(all.rigs[pair.a].rig, "Vinto 7");
    EXPECT_EQ(all.rigs[pair.b].rig, "Hasp");
    EXPECT_EQ(pair.blocks, 6U);
    EXPECT_NEAR(pair.whole.p, 0.082776, 1e-6);
    EXPECT_NEAR(pair.inBlocks->p, 0.144500, 1e-6);
    EXPECT_NEAR(pair.p, 0.144500, 1e-6) << "it leads, and was the only one that was planned";
    EXPECT_TRUE(pair.toTell);
  }
  EXPECT_EQ(planned, 1U);
}

TEST_F(DemoSeason, HoldsTheTankAgainstTheWaterWhereThereIsEnough) {
  std::vector<TieCandidate> measured;
  const std::pair<DemoRig, double> kicks[] = {{kVinto7, 36}, {kVinto4, 18}, {kMirk7, 22},
                                              {kSkrell, 27}, {kOblig, 12},  {kOblag, 14}};
  for (const auto& [rig, kick] : kicks)
    measured.push_back({.rig = static_cast<std::int64_t>(rig),
                        .readings = {{ReadingId::KickAngle, kick}, {ReadingId::FallRate, 200.0 + kick}}});
  for (TieCandidate& one : measured) {
    if (one.rig == RigId(kOblig)) one.readings.erase(ReadingId::FallRate);
  }
  const CatchReport all = report(measured);
  ASSERT_EQ(all.tank.size(), 2U);
  for (const TankAndWater& one : all.tank) {
    if (one.reading == ReadingId::KickAngle) {
      EXPECT_EQ(one.tooFew, "");
      EXPECT_NEAR(one.agreement.rho, 0.714286, 1e-6);
      EXPECT_NEAR(one.p, 0.136111, 1e-6);
    } else {
      EXPECT_NE(one.tooFew.find("5 of 6 rigs"), std::string::npos) << one.tooFew;
    }
  }
}

TEST_F(DemoSeason, TiesOnByItsWaters) {
  std::vector<TieCandidate> rigs{
      {.rig = 1,
       .name = "a",
       .length_mm = 110.0,
       .finish = Finish::Dull,
       .readings = {{ReadingId::PauseDrift, 4.0},
                    {ReadingId::FallRate, 200.0},
                    {ReadingId::OnsetSpeed, 150.0}}},
      {.rig = 2,
       .name = "b",
       .length_mm = 70.0,
       .finish = Finish::Bright,
       .readings = {
           {ReadingId::PauseDrift, 40.0}, {ReadingId::FallRate, 130.0}, {ReadingId::OnsetSpeed, 90.0}}}};
  const std::set<std::string> wanted[] = {{"6", "8", "9", "13", "19"},
                                          {"5", "7", "13", "14", "18"},
                                          {"3", "7", "11", "12", "15", "16", "17"},
                                          {"1", "4", "6", "8", "10", "11", "14", "20"}};
  for (std::size_t d = 0; d < days_.size(); ++d) {
    const double begin = days_[d].conditions.front().at_s;
    const TieOn on = tieOn(rigs, usualRules(), {.water = WaterNow(days_[d].conditions, begin)}, {});
    std::set<std::string> awake;
    for (std::size_t i = 0; i < on.rules.size(); ++i) {
      if (on.rules[i].is == RuleState::Is::Awake) awake.insert(usualRules()[i].name);
    }
    std::set<std::string> expected = wanted[d];
    for (const char* byEvents : {"18", "11"}) expected.erase(byEvents);  // nothing happened yet
    if (d == 0) expected.insert("2");
    EXPECT_EQ(awake, expected) << days_[d].name;
  }
}

TEST_F(DemoSeason, KeepsARecordOfWhatEachRulesPicksCaught) {
  // Rule 1 wants, in water below 8 °C, what hangs, falls slowly and starts slowly: Skrell here.
  const std::vector<TieCandidate> rigs{
      {.rig = static_cast<std::int64_t>(kSkrell),
       .name = "Skrell",
       .readings = {{ReadingId::PauseDrift, 1.0},
                    {ReadingId::FallRate, 60.0},
                    {ReadingId::OnsetSpeed, 90.0}}},
      {.rig = static_cast<std::int64_t>(kVinto7),
       .name = "Vinto 7",
       .readings = {
           {ReadingId::PauseDrift, 90.0}, {ReadingId::FallRate, 210.0}, {ReadingId::OnsetSpeed, 200.0}}}};
  const auto records = ruleRecords(rigs, usualRules(), days_, runs_);
  ASSERT_EQ(records.size(), 20U);
  // Awake on the fourth day alone: 7 hours, 2 of them with the Skrell, 4 of 6 fish.
  EXPECT_NEAR(records[0].pickHours, 2.0, 1e-9);
  EXPECT_EQ(records[0].pickFish, 4U);
  EXPECT_NEAR(records[0].otherHours, 5.0, 1e-9);
  EXPECT_EQ(records[0].otherFish, 2U);
  EXPECT_EQ(records[2].pickHours + records[2].otherHours, 0.0) << "nothing is known of their rattle";
}

}  // namespace
}  // namespace fin
