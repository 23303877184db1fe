// SPDX-License-Identifier: GPL-3.0-or-later
// What the water is like, what anglers say of it, and which lure that speaks for.
#include "core/season/tie_on.h"

#include "core/season/water_cautions.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <set>

namespace fin {
namespace {

ConditionLine line(Condition what, double number, double at_s = 0.0) {
  return {at_s, what, number, ""};
}
ConditionLine said(Condition what, const char* word, double at_s = 0.0) {
  return {at_s, what, {}, word};
}
DayFacts facts(const std::vector<ConditionLine>& lines) {
  return {.water = WaterNow(lines, 1e9)};
}

TEST(Conditions, AreWhatWasNotedLast) {
  const std::vector<ConditionLine> lines{line(Condition::Clarity, 2.2, 100.0),
                                         line(Condition::Clarity, 0.8, 300.0),
                                         said(Condition::Wind, "first crests", 200.0),
                                         {150.0, Condition::Tide, {}, ""}};
  EXPECT_EQ(WaterNow(lines, 250.0).number(Condition::Clarity), 2.2);
  EXPECT_EQ(WaterNow(lines, 300.0).number(Condition::Clarity), 0.8);
  EXPECT_FALSE(WaterNow(lines, 100.0).number(Condition::Wind));
  EXPECT_NEAR(*WaterNow(lines, 300.0).number(Condition::Wind), 4.45, 1e-12);
  const WaterNow water(lines, 300.0);
  ASSERT_NE(water.line(Condition::Tide), nullptr) << "it was asked, and is not known";
  EXPECT_TRUE(water.line(Condition::Tide)->unknown());
  EXPECT_EQ(water.line(Condition::Depth), nullptr);
}

TEST(Conditions, KnowTheWindByTheLookOfTheWater) {
  constexpr std::pair<double, std::string_view> kLooks[] = {
      {0.0, "mirror"},       {0.29, "mirror"},    {0.3, "scales"},    {1.6, "glassy ripples"},
      {3.4, "first crests"}, {5.5, "many white"}, {8.0, "all white"}, {10.8, "spray"}};
  for (const auto& [m_s, word] : kLooks) EXPECT_EQ(windWord(m_s), word) << m_s;
  for (const std::string_view word : specOf(Condition::Wind).words) EXPECT_EQ(windWord(*windOf(word)), word);
}

TEST(Conditions, ThatCannotBeAreRefusedAndThoseThatOpposeAreSaid) {
  EXPECT_TRUE(validate(line(Condition::Cloud, 8.0)));
  EXPECT_TRUE(validate({0.0, Condition::Light, {}, ""})) << "unknown is an answer";
  EXPECT_FALSE(validate(line(Condition::Cloud, 9.0)));
  EXPECT_FALSE(validate(line(Condition::Clarity, -1.0)));
  EXPECT_FALSE(validate(line(Condition::Light, 3.0)));
  EXPECT_FALSE(validate(said(Condition::Light, "green")));
  const auto told =
      contradictionsIn(WaterNow({line(Condition::Clarity, 4.0), line(Condition::Depth, 2.5),
                                 line(Condition::Current, 0.0), said(Condition::Pull, "with the current"),
                                 said(Condition::Tide, "none"), line(Condition::HoursFromHigh, 2.0)},
                                1.0));
  ASSERT_EQ(told.size(), 3U);
  EXPECT_EQ(told[0], "The disc is seen down to 4 m, and the water is 2.5 m deep.");
  EXPECT_TRUE(contradictionsIn(WaterNow({line(Condition::Clarity, 2.0)}, 1.0)).empty());
  EXPECT_EQ(*seasonOf("2026-11-29", false), "autumn");
  EXPECT_EQ(*seasonOf("2026-12-01", true), "summer");
  EXPECT_FALSE(seasonOf("", false));
}

TEST(Conditions, WarnOfWindAndColdWater) {
  EXPECT_TRUE(cautionsOn(WaterNow()).empty());
  EXPECT_TRUE(
      cautionsOn(WaterNow({line(Condition::SurfaceTemperature, 15.0), line(Condition::Wind, 5.4)}, 1.0))
          .empty());
  const auto told = cautionsOn(
      WaterNow({line(Condition::SurfaceTemperature, 14.9), said(Condition::Wind, "many white")}, 1.0));
  ASSERT_EQ(told.size(), 2U);
  EXPECT_NE(told[0].find("ashore"), std::string::npos);
  EXPECT_NE(told[1].find("takes the breath"), std::string::npos);
}

/// Which of the usual rules are awake.
std::set<std::string> awake(const DayFacts& so) {
  std::set<std::string> out;
  for (const TieRule& rule : usualRules()) {
    const RuleState state = stateOf(rule, so, {});
    EXPECT_NE(state.is, RuleState::Is::Wrong) << rule.name << ": " << state.why;
    if (state.is == RuleState::Is::Awake) out.insert(rule.name);
  }
  return out;
}
using Names = std::set<std::string>;

TEST(TieRules, WakeAsTheWaterSays) {
  using C = Condition;
  EXPECT_EQ(awake(facts({})), Names{});
  EXPECT_EQ(awake(facts({line(C::SurfaceTemperature, 7.9)})), Names{"1"});
  EXPECT_EQ(awake(facts({line(C::SurfaceTemperature, 14), line(C::TemperatureChange, -2)})), Names{"1"});
  EXPECT_EQ(awake(facts({line(C::SurfaceTemperature, 14), line(C::TemperatureChange, 0.5)})), Names{"2"});
  EXPECT_EQ(awake(facts({line(C::Clarity, 0.8)})), Names{"3"});
  EXPECT_EQ(awake(facts({line(C::Clarity, 3.5), said(C::Light, "bright")})), (Names{"4", "8"}));
  EXPECT_EQ(awake(facts({line(C::Wind, 6.0)})), Names{"5"});
  EXPECT_EQ(awake(facts({said(C::Wind, "scales"), said(C::Light, "bright")})), Names{"6"});
  EXPECT_EQ(awake(facts({line(C::Cloud, 7)})), Names{"7"});
  EXPECT_EQ(awake(facts({line(C::PreyLength, 60)})), Names{"9"});
  EXPECT_EQ(awake(facts({said(C::Fish, "follow")})), Names{"10"});
  EXPECT_EQ(awake(facts({said(C::Fish, "miss")})), Names{"11"});
  EXPECT_EQ(awake(facts({said(C::Cover, "wood")})), (Names{"12", "16"}));
  EXPECT_EQ(awake(facts({said(C::Cover, "edge")})), Names{"13"});
  EXPECT_EQ(awake(facts({line(C::Depth, 4.5), said(C::FishDepth, "low")})), Names{"14"});
  EXPECT_EQ(awake(facts({said(C::Bottom, "stone")})), Names{"15"});
  EXPECT_EQ(awake(facts({said(C::Pull, "with the current"), line(C::Current, 0.2)})), Names{"17"});
  EXPECT_EQ(awake(facts({said(C::Place, "strange")})), Names{"19"});
  EXPECT_EQ(awake(facts({said(C::MuchFished, "yes")})), Names{"20"});
  DayFacts blank = facts({said(C::Place, "known")});
  EXPECT_EQ(awake(blank), Names{}) << "nothing was fished yet";
  blank.takes = 0;
  EXPECT_EQ(awake(blank), Names{"18"});
  blank.takes = 1;
  blank.misses = 1;
  EXPECT_EQ(awake(blank), Names{"11"});
}

TEST(TieRules, SleepWhereWhatTheyAskForIsNotNoted) {
  const TieRule& clarity = usualRules()[2];
  const RuleState asleep = stateOf(clarity, facts({}), {});
  EXPECT_EQ(asleep.is, RuleState::Is::Asleep);
  EXPECT_EQ(asleep.why, "clarity");
  EXPECT_EQ(stateOf(clarity, facts({{0.0, Condition::Clarity, {}, ""}}), {}).is, RuleState::Is::Asleep)
      << "unknown is not known";
  EXPECT_EQ(stateOf(clarity, facts({line(Condition::Clarity, 2.0)}), {}).is, RuleState::Is::No);
  TieRule off = clarity;
  off.on = false;
  EXPECT_EQ(stateOf(off, facts({line(Condition::Clarity, 0.5)}), {}).is, RuleState::Is::Off);
}

TEST(TieRules, AreSilencedByTheOtherSchoolAlone) {
  const auto left = [](std::size_t rule, const DayFacts& so, std::vector<SchoolSide> schools) {
    return stateOf(usualRules()[rule - 1], so, schools).wishes.size();
  };
  const DayFacts prey = facts({line(Condition::PreyLength, 60)});
  EXPECT_EQ(left(9, prey, {}), 1U);
  EXPECT_EQ(left(9, prey, {SchoolSide::ByPrey}), 1U);
  EXPECT_EQ(left(9, prey, {SchoolSide::BySpeed}), 0U);
  const DayFacts crests = facts({line(Condition::Wind, 6)});
  EXPECT_EQ(left(5, crests, {SchoolSide::ByPrey}), 2U) << "all but the length";
  const DayFacts stained = facts({line(Condition::Clarity, 0.5)});
  EXPECT_EQ(left(3, stained, {SchoolSide::Quiet}), 0U);
  EXPECT_EQ(left(3, stained, {SchoolSide::Loud}), 3U);
  const DayFacts strange = facts({said(Condition::Place, "strange")});
  EXPECT_EQ(left(19, strange, {SchoolSide::Finesse}), 0U);
  EXPECT_EQ(left(19, strange, {SchoolSide::ByPrey}), 1U);
  const DayFacts warm =
      facts({line(Condition::SurfaceTemperature, 14), line(Condition::TemperatureChange, 0)});
  EXPECT_EQ(left(2, warm, {SchoolSide::Hunting}), 1U) << "the search stays";
}

TEST(TieRules, NameWhatIsNotUnderstood) {
  for (const char* when : {"", "clarity", "clarity <", "clarity < deep", "colour = red", "light = green",
                           "clarity < 1 and", "clarity < 1 or"}) {
    const auto parsed = parseWhen(when);
    ASSERT_FALSE(parsed) << when;
    EXPECT_NE(parsed.error().message.find("is not understood"), std::string::npos) << when;
  }
  for (const char* wants : {"", "kick_angle", "kick_angle * 2", "charm +", "finish +", "finish -> red",
                            "kick_angle + x0", "kick_angle + (sideways)", "length -> long", "kick_angle +,"})
    EXPECT_FALSE(parseWants(wants)) << wants;
  const auto wish = parseWants("pause_drift -> -2.5 x3 (finesse/quiet)");
  ASSERT_TRUE(wish) << wish.error().message;
  EXPECT_EQ(wish->front().reading, ReadingId::PauseDrift);
  EXPECT_EQ(wish->front().target, -2.5);
  EXPECT_EQ(wish->front().weight, 3.0);
  EXPECT_EQ(wish->front().sides, (std::vector{SchoolSide::Finesse, SchoolSide::Quiet}));
}

TEST(TieOn, IsRankedByWhatIsKnownWithTheCeilingOfWhatIsNot) {
  const TieChoice choice = choiceOf({8.0, 6.0, {}}, {2.0, 1.0, 1.0});
  EXPECT_NEAR(choice.known, 0.75, 1e-12);
  EXPECT_NEAR(choice.floor, 5.5, 1e-12);
  EXPECT_NEAR(choice.ceiling, 8.0, 1e-12);
  EXPECT_TRUE(choice.ranked);
  EXPECT_FALSE(choiceOf({8.0, {}, {}}, {1.0, 1.0, 1.0}).ranked);
}

std::vector<TieCandidate> three() {
  return {{1,
           "Loud",
           120.0,
           Finish::Dull,
           {},
           {{ReadingId::RattleLevel, 40.0}, {ReadingId::KickAngle, 30.0}, {ReadingId::WobbleAngle, 20.0}}},
          {2,
           "Middling",
           90.0,
           Finish::Plain,
           {},
           {{ReadingId::RattleLevel, 30.0}, {ReadingId::KickAngle, 25.0}, {ReadingId::WobbleAngle, 10.0}}},
          {3, "Unread", 60.0, Finish::Unknown, {}, {}}};
}

TEST(TieOn, PutsFirstWhatTheAwakeRulesWantAndSaysWhatToFilm) {
  const TieOn on = tieOn(three(), usualRules(), facts({line(Condition::Clarity, 0.8)}), {});
  EXPECT_EQ(on.whyNone, "");
  ASSERT_EQ(on.wishes.size(), 3U);
  EXPECT_EQ(on.choices[0].candidate, 0U);
  EXPECT_NEAR(on.choices[0].floor, 10.0, 1e-12);
  EXPECT_NEAR(on.choices[1].floor, 0.0, 1e-12);
  EXPECT_FALSE(on.choices[2].ranked) << "nothing of it is known";
  EXPECT_FALSE(on.tooClose);
  EXPECT_EQ(on.film, (std::vector{ReadingId::RattleLevel, ReadingId::WobbleAngle, ReadingId::KickAngle}));
}

TEST(TieOn, IsTooCloseWhereTheSecondMayBeAsGood) {
  auto rigs = three();
  rigs[1].readings.erase(ReadingId::RattleLevel);
  rigs[1].readings[ReadingId::WobbleAngle] = 40.0;
  // Loud: 5 × 2 (alone in its rattle), 10 by its kick, nothing by its wobble, of 4: 5. Middling: 10 by its
  // wobble, nothing by its kick: 2.5, and up to 7.5 by the rattle that nobody read.
  const TieOn on = tieOn(rigs, usualRules(), facts({line(Condition::Clarity, 0.8)}), {});
  EXPECT_NEAR(on.choices[0].floor, 5.0, 1e-12);
  EXPECT_NEAR(on.choices[1].floor, 2.5, 1e-12);
  EXPECT_NEAR(on.choices[1].ceiling, 7.5, 1e-12);
  EXPECT_TRUE(on.tooClose);
}

TEST(TieOn, NamesWishesThatOpposeEachOtherAndCountsBoth) {
  // Stained and dull asks for noise, a mirror under a bright sky for none.
  const TieOn on = tieOn(three(), usualRules(),
                         facts({line(Condition::Clarity, 0.8), said(Condition::Wind, "mirror"),
                                said(Condition::Light, "bright")}),
                         {});
  ASSERT_EQ(on.opposed.size(), 1U);
  const auto [a, b] = on.opposed.front();
  EXPECT_EQ(on.wishes[a].wish.reading, ReadingId::RattleLevel);
  EXPECT_EQ(on.wishes[b].wish.reading, ReadingId::RattleLevel);
  EXPECT_NE(on.wishes[a].rule, on.wishes[b].rule);
}

TEST(TieOn, CountsAFinishHalfAndAimsAtThePrey) {
  const TieOn on =
      tieOn(three(), usualRules(), facts({line(Condition::Cloud, 8), line(Condition::PreyLength, 90)}),
            {SchoolSide::Dull});
  const auto finish = std::find_if(on.wishes.begin(), on.wishes.end(),
                                   [](const AwakeWish& w) { return w.wish.of == TieWish::Of::Finish; });
  ASSERT_NE(finish, on.wishes.end());
  EXPECT_EQ(finish->weight, 0.5);
  const auto length = std::find_if(on.wishes.begin(), on.wishes.end(),
                                   [](const AwakeWish& w) { return w.wish.of == TieWish::Of::Length; });
  ASSERT_NE(length, on.wishes.end());
  EXPECT_EQ(length->wish.target, 90.0);
  for (const TieChoice& c : on.choices) {
    const auto points = c.points[static_cast<std::size_t>(length - on.wishes.begin())];
    EXPECT_NEAR(*points, c.candidate == 1 ? 10.0 : 0.0, 1e-12);
  }
}

TEST(TieOn, ProposesNothingWhereNothingSpeaksForIt) {
  EXPECT_NE(tieOn(three(), usualRules(), facts({}), {}).whyNone.find("no rule is awake"), std::string::npos);
  EXPECT_NE(tieOn({}, usualRules(), facts({line(Condition::Clarity, 0.8)}), {}).whyNone, "");
  const TieOn none = tieOn({three()[2]}, usualRules(), facts({line(Condition::Clarity, 0.8)}), {});
  EXPECT_NE(none.whyNone.find("unknown here"), std::string::npos);
  EXPECT_EQ(none.film.size(), 3U);
}

TEST(TieOn, TakesGradedRigsWithTheMeansOfTheirPasses) {
  Rack rack;
  rack.models = {{.id = 1, .name = "Vinto", .length_mm = 110.0, .finish = Finish::Dull},
                 {.id = 2, .name = "Ours", .graded = false}};
  rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}};
  std::vector<ComparedPass> passes(2);
  for (std::size_t i = 0; i < 2; ++i) {
    passes[i].id = static_cast<std::int64_t>(i + 1);
    passes[i].rig = "Vinto";
    passes[i].readings.readings = {
        {ReadingId::FallRate, 200.0 + 10.0 * static_cast<double>(i), "mm/s", 1.0, 9.0}};
  }
  const auto candidates = candidatesOf(rack, passes);
  ASSERT_EQ(candidates.size(), 1U);
  EXPECT_EQ(candidates[0].length_mm, 110.0);
  EXPECT_EQ(candidates[0].finish, Finish::Dull);
  EXPECT_EQ(candidates[0].readings.at(ReadingId::FallRate), 205.0);
}

}  // namespace
}  // namespace fin
