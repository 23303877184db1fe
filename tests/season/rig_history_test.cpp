// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/rig_history.h"

#include <gtest/gtest.h>

#include "core/season/finding_words.h"

namespace fin {
namespace {

const std::vector<DayHead> kDays{{.id = 1, .date = "2027-05-02"}, {.id = 2, .date = "2027-06-01"}};

std::vector<ComparedPass> falls() {
  std::vector<ComparedPass> out;
  const auto add = [&out](DayId day, const char* rig, bool control, std::initializer_list<double> rates) {
    for (const double rate : rates) {
      ComparedPass& pass = out.emplace_back();
      pass.id = static_cast<std::int64_t>(out.size());
      pass.planned = pass.id.value();
      pass.rig = rig;
      pass.day = day;
      pass.control = control;
      pass.readings.readings = {{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0}};
    }
  };
  add(1, "Vinto", false, {210.1, 209.2, 211.4});
  add(1, "Oblag", true, {128.1, 127.4, 128.9});
  add(2, "Vinto", false, {204.9, 206.3, 205.2});
  add(2, "Oblag", true, {127.0, 127.9, 126.6});
  return out;
}

TEST(RigHistory, IsBridgedByTheRigThatCameAgain) {
  const auto histories = historiesOf(falls(), kDays, {"Vinto", "Oblag"});
  ASSERT_EQ(histories.size(), 2U);
  const RigHistory& vinto = histories[0];
  ASSERT_EQ(vinto.days.size(), 2U);
  EXPECT_EQ(vinto.days[1].date, "2027-06-01");
  ASSERT_EQ(vinto.history.pairs.size(), 1U);
  EXPECT_TRUE(vinto.history.pairs[0].change.bridged);
  EXPECT_NEAR(1.0 + vinto.history.pairs[0].change.change, 0.984759, 1e-6);
  EXPECT_FALSE(histories[1].history.pairs[0].change.bridged) << "the control is not held against itself";
  ASSERT_TRUE(vinto.latest);
  EXPECT_LT(vinto.latest->from, 204.4) << "by the scatter of three passes, and no surer than one of them";
  EXPECT_GT(vinto.latest->to, 206.5);
}

TEST(RigHistory, SetsAsideWhatWasPulledOtherwise) {
  std::vector<ComparedPass> passes = falls();
  for (std::size_t i = 0; i < passes.size(); ++i)
    passes[i].readings.readings.insert(passes[i].readings.readings.begin(),
                                       {ReadingId::TravelSpeed, i == 0 ? 300.0 : 250.0, "mm/s", 1.0, 60.0});
  const auto histories = historiesOf(passes, kDays, {"Vinto"});
  ASSERT_EQ(histories.size(), 1U);
  EXPECT_EQ(histories[0].setAside, 1U);
  EXPECT_EQ(histories[0].days[0].values.rig.size(), 2U);
}

TEST(RigHistory, SetsAsideWhatWasTwitchedAtAnotherBeat) {
  std::vector<ComparedPass> passes = falls();
  for (std::size_t i = 0; i < passes.size(); ++i)
    passes[i].readings.readings.push_back({ReadingId::TwitchInterval, i == 0 ? 1.2 : 1.0, "s", 0.01, 9.0});
  auto histories = historiesOf(passes, kDays, {"Vinto"});
  EXPECT_EQ(histories[0].otherBeat, 1U);
  EXPECT_EQ(histories[0].days[0].values.rig.size(), 2U);
  passes[0].readings.readings.back().value = 1.14;
  EXPECT_EQ(historiesOf(passes, kDays, {"Vinto"})[0].otherBeat, 0U) << "15 % are allowed";
}

TEST(RigHistory, OfALoudnessIsNoneWhereTheControlWasNotHeard) {
  std::vector<ComparedPass> passes = falls();
  for (ComparedPass& pass : passes) pass.readings.readings[0].id = ReadingId::RattleLevel;
  EXPECT_EQ(historiesOf(passes, kDays, {"Vinto"})[0].history.pairs.size(), 1U);
  std::erase_if(passes, [](const ComparedPass& p) { return p.control && p.day == DayId(2); });
  const RigHistory vinto = historiesOf(passes, kDays, {"Vinto"})[0];
  EXPECT_TRUE(vinto.heard);
  EXPECT_TRUE(vinto.history.pairs.empty());
  EXPECT_FALSE(vinto.history.test);
}

TEST(RigHistory, SaysHowTheWaterDiffered) {
  WaterPlan fresh, salt;
  salt.salinity_g_kg = 12.0;
  salt.temperature_C = fresh.temperature_C + 2.0;
  const WaterDiffers differs = waterDiffers({fresh, salt});
  EXPECT_TRUE(differs.salinity);
  EXPECT_FALSE(differs.temperature);
  EXPECT_EQ(differs.mostSalinity_g_kg, 12.0);
  EXPECT_FALSE(waterDiffers({}).salinity);
}

TEST(Found, IsWhatHoldsEveryWordFromItsBeginning) {
  const std::vector<Findable> all{{Findable::Kind::Model, 1, "Vinto 11", {}},
                                  {Findable::Kind::Rig, 2, "Vinto 11, 7 g head", {}},
                                  {Findable::Kind::Day, 3, "2 May 2027, Trough", {}}};
  EXPECT_EQ(found(all, ""), (std::vector<std::size_t>{0, 1, 2}));
  EXPECT_EQ(found(all, "VIN"), (std::vector<std::size_t>{0, 1}));
  EXPECT_EQ(found(all, "head vinto"), std::vector<std::size_t>{1});
  EXPECT_EQ(found(all, "tro may"), std::vector<std::size_t>{2});
  EXPECT_TRUE(found(all, "into").empty()) << "within a word";
}

}  // namespace
}  // namespace fin
