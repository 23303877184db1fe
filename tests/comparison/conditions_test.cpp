// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/conditions.h"

#include <gtest/gtest.h>

#include "core/comparison/firmness.h"
#include "core/comparison/rate_doubt.h"
#include "support/reading_words.h"

namespace fin {
namespace {

ComparedPass pass(std::int64_t id, std::vector<Reading> readings, Protocol protocol = Protocol::Retrieve) {
  return {id, "pass", "rig " + std::to_string(id), {}, protocol, true, {std::move(readings), {}}};
}
Reading number(ReadingId name, double value) {
  return {name, value, "", 0.1, 10.0};
}

std::optional<Unequal> unequalIn(const std::vector<Unequal>& all, Unequal::What what) {
  for (const Unequal& one : all) {
    if (one.what == what) return one;
  }
  return std::nullopt;
}

TEST(UnequalConditions, AreNoneWhereAllWasTheSame) {
  const std::vector<ComparedPass> passes{
      pass(1, {number(ReadingId::TravelSpeed, 250.0), number(ReadingId::WobbleAngle, 20.0)}),
      pass(2, {number(ReadingId::TravelSpeed, 262.0), number(ReadingId::WobbleAngle, 24.0)})};
  PassConditions same{.line = "braid", .link = "snap", .lineStrength_kg = 6.0, .rigKnown = true};
  std::vector<PassConditions> conditions{same, same};
  conditions[0].pass = 1;
  conditions[1].pass = 2;
  conditions[1].camera = "top";  // counts for loudness alone
  EXPECT_TRUE(unequalConditions(passes, conditions, ReadingId::WobbleAngle).empty());
}

TEST(UnequalConditions, NameSpeedsMoreThanATenthApart) {
  const std::vector<ComparedPass> passes{
      pass(1, {number(ReadingId::TravelSpeed, 200.0), number(ReadingId::WobbleAngle, 20.0)}),
      pass(2, {number(ReadingId::TravelSpeed, 300.0), number(ReadingId::WobbleAngle, 24.0)}),
      pass(3, {number(ReadingId::TravelSpeed, 900.0)})};  // without the reading
  const auto speeds =
      unequalIn(unequalConditions(passes, {}, ReadingId::WobbleAngle), Unequal::What::PullSpeed);
  ASSERT_TRUE(speeds);
  EXPECT_EQ(speeds->least, 200.0);
  EXPECT_EQ(speeds->most, 300.0);
  // At one speed only those pulled at it are compared.
  EXPECT_TRUE(unequalConditions(passes, {}, ReadingId::WobbleAngle, 200.0).empty());
}

TEST(UnequalConditions, NameACadenceFromATenthOn) {
  const auto cadence = [](double first, double second) {
    const std::vector<ComparedPass> passes{
        pass(1, {number(ReadingId::TwitchInterval, first), number(ReadingId::Advance, 90.0)},
             Protocol::Twitch),
        pass(2, {number(ReadingId::TwitchInterval, second), number(ReadingId::Advance, 80.0)},
             Protocol::Twitch)};
    return unequalIn(unequalConditions(passes, {}, ReadingId::Advance), Unequal::What::Cadence);
  };
  EXPECT_FALSE(cadence(1.00, 1.09));
  const auto unequal = cadence(1.00, 1.12);
  ASSERT_TRUE(unequal);
  EXPECT_EQ(unequal->least, 1.00);
  EXPECT_EQ(unequal->most, 1.12);
}

TEST(UnequalConditions, NameLinesLinksStrengthsAndForLoudnessCameras) {
  const std::vector<ComparedPass> passes{pass(1, {number(ReadingId::RattleLevel, 12.0)}, Protocol::Sound),
                                         pass(2, {number(ReadingId::RattleLevel, 14.0)}, Protocol::Sound),
                                         pass(3, {number(ReadingId::RattleLevel, 14.0)}, Protocol::Sound)};
  std::vector<PassConditions> conditions{
      {.pass = 1,
       .camera = "fixed",
       .cameraDistance_mm = 1500.0,
       .line = "braid",
       .link = "snap",
       .lineStrength_kg = 6.0,
       .rigKnown = true},
      {.pass = 2,
       .camera = "fixed",
       .cameraDistance_mm = 2000.0,
       .line = "wire",
       .link = "",
       .rigKnown = true},
      {.pass = 3, .camera = "fixed", .cameraDistance_mm = 2000.0}};  // its rig is not on the rack
  const auto all = unequalConditions(passes, conditions, ReadingId::RattleLevel);
  using Values = std::vector<std::string>;
  EXPECT_EQ(unequalIn(all, Unequal::What::Camera)->values, (Values{"fixed at 1.5 m", "fixed at 2.0 m"}));
  EXPECT_EQ(unequalIn(all, Unequal::What::Line)->values, (Values{"braid", "wire"}));
  EXPECT_EQ(unequalIn(all, Unequal::What::LineStrength)->values, (Values{"", "6"}));
  EXPECT_EQ(unequalIn(all, Unequal::What::Link)->values, (Values{"", "snap"}));
}

TEST(RateDoubtOf, APassThatReadsAWholeNumberOfTimesSlower) {
  const std::vector<ReadingSet> peers{{{number(ReadingId::WobbleFrequency, 4.2)}, {}},
                                      {{number(ReadingId::WobbleFrequency, 4.3)}, {}},
                                      {{number(ReadingId::FallRate, 200.0)}, {}}};
  const auto doubt = rateDoubt({{number(ReadingId::WobbleFrequency, 1.06)}, {}}, peers);
  ASSERT_TRUE(doubt);
  EXPECT_EQ(doubt->factor, 4);
  EXPECT_TRUE(doubt->tooSlow);
  EXPECT_EQ(doubt->peers, 2U);
  EXPECT_EQ(doubt->reading, ReadingId::WobbleFrequency);
  EXPECT_FALSE(rateDoubt({{number(ReadingId::WobbleFrequency, 4.4)}, {}}, peers)) << "as the others";
  EXPECT_FALSE(rateDoubt({{number(ReadingId::WobbleFrequency, 2.9)}, {}}, peers)) << "no whole number";
  EXPECT_FALSE(rateDoubt({{number(ReadingId::KickFrequency, 1.0)}, {}}, peers)) << "nothing to compare with";
}

TEST(UnequalConditions, NameWhatTheDayChangedAndHowRigsDiffer) {
  std::vector<ComparedPass> passes(3);
  std::vector<PassConditions> conditions(3);
  for (std::size_t i = 0; i < 3; ++i) {
    passes[i].id = conditions[i].pass = static_cast<std::int64_t>(i + 1);
    passes[i].readings.readings = {{ReadingId::FallRate, 100.0, "mm/s", 1.0, 30.0}};
    conditions[i].rigKnown = true;
    conditions[i].light = i == 0 ? "cloud" : i == 1 ? "bright sun" : "";
    conditions[i].wind = "calm";
    conditions[i].water_C = 14.0 + 0.7 * static_cast<double>(i);
    conditions[i].hook = i == 0 ? "2/0" : "3/0";
  }
  const auto found = unequalConditions(passes, conditions, ReadingId::FallRate);
  ASSERT_EQ(found.size(), 3U) << "wind was the same all day, and no head was said";
  EXPECT_EQ(found[0].what, Unequal::What::Hook);
  EXPECT_EQ(found[1].what, Unequal::What::Light);
  EXPECT_EQ(found[1].values, (std::vector<std::string>{"bright sun", "cloud"}));
  EXPECT_EQ(found[2].what, Unequal::What::WaterTemperature);
  EXPECT_EQ(found[2].most, 15.4);
  conditions[2].water_C = 14.9;
  EXPECT_EQ(unequalConditions(passes, conditions, ReadingId::FallRate).size(), 2U) << "within a degree";
}

/// Placings with these chances of the first place.
Ranking rankingWith(const std::vector<double>& chances, const std::vector<double>& places) {
  Ranking out;
  for (std::size_t i = 0; i < chances.size(); ++i)
    out.placings.push_back({.entry = i, .place = places[i], .first = {.byBoth = chances[i]}});
  return out;
}

TEST(FirstPlaceOf, IsFirmFromNineteenOfTwentyAndLikelyFromThreeOfFour) {
  EXPECT_EQ(firstPlaceOf({}).firmness, Firmness::None);
  EXPECT_EQ(firstPlaceOf(rankingWith({0.96, 0.04}, {1, 2})).firmness, Firmness::Firm);
  EXPECT_EQ(firstPlaceOf(rankingWith({0.94, 0.06}, {1, 2})).firmness, Firmness::Likely);
  EXPECT_EQ(firstPlaceOf(rankingWith({0.74, 0.26}, {1, 2})).firmness, Firmness::TooClose);
  Ranking open = rankingWith({0.99, 0.01}, {1, 2});
  open.couldPass = {1};
  EXPECT_EQ(firstPlaceOf(open).firmness, Firmness::Likely) << "what is not read could change it";
}

TEST(FirstPlaceOf, NamesWhoSharesItAndWhoMayHaveIt) {
  const FirstPlace place = firstPlaceOf(rankingWith({0.45, 0.40, 0.11, 0.04}, {1.5, 1.5, 3, 4}));
  EXPECT_EQ(place.entries, (std::vector<std::size_t>{0, 1}));
  ASSERT_EQ(place.rivals.size(), 2U);
  EXPECT_EQ(place.rivals[0].entry, 1U);
  EXPECT_EQ(place.rivals[1].chance, 0.11);
}

}  // namespace
}  // namespace fin
