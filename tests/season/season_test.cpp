// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include "core/season/claims.h"
#include "core/season/forecast.h"
#include "core/season/retest.h"
#include "core/season/water_shift.h"
#include "core/units/date.h"

namespace fin {
namespace {

TEST(Claims, AreKeptOnlyWhereTheWholeIntervalIsWithin) {
  const Claim hangs{
      .id = 1, .model = 1, .words = "hangs", .reading = ReadingId::RiseRate, .least = -5.0, .most = 5.0};
  EXPECT_EQ(stateOf(hangs, {}), ClaimState::Untested);
  EXPECT_EQ(stateOf(hangs, ReadRange{-4.0, 5.0}), ClaimState::Kept);
  EXPECT_EQ(stateOf(hangs, ReadRange{-4.0, 6.0}), ClaimState::Undecided);
  EXPECT_EQ(stateOf(hangs, ReadRange{29.0, 33.0}), ClaimState::Broken);
  EXPECT_EQ(stateOf(hangs, ReadRange{-9.0, -6.0}), ClaimState::Broken);
  Claim fast = hangs;
  fast.most.reset();
  EXPECT_EQ(stateOf(fast, ReadRange{29.0, 33.0}), ClaimState::Kept);
}

TEST(Forecast, IsScoredByWhatCameOut) {
  const auto score =
      brierScore({{0.9, true}, {0.7, false}, {0.5, true}, {0.1, false}, {0.8, true}, {0.9, {}}});
  ASSERT_TRUE(score);
  EXPECT_NEAR(*score, 0.16, 1e-12);
  EXPECT_FALSE(brierScore({{0.9, {}}})) << "it lies across the line";
}

/// Rigs in this order, those named as close not told apart.
Spread orderOf(const std::string& order, const std::string& close = "") {
  Spread out;
  for (const char c : order) out.rigs.push_back({.rig = std::string(1, c)});
  for (std::size_t a = 0; a < order.size(); ++a) {
    for (std::size_t b = a + 1; b < order.size(); ++b) {
      const bool near =
          close.find(order[a]) != std::string::npos && close.find(order[b]) != std::string::npos;
      out.pairs.push_back({.a = a, .b = b, .apart = !near});
    }
  }
  return out;
}

TEST(Forecast, OfAnOrderCountsPairsThatWereToldApart) {
  const std::vector<std::string> foretold{"A", "B", "C", "D", "E"};
  EXPECT_NEAR(orderForetold(foretold, orderOf("BADCE"))->share(), 0.2, 1e-12);
  EXPECT_NEAR(orderForetold(foretold, orderOf("BADCE", "CD"))->share(), 0.111111, 1e-6);
  EXPECT_FALSE(orderForetold(foretold, orderOf("BA", "AB")));
  EXPECT_EQ(orderForetold({"A", "B"}, orderOf("BAX"))->apart, 1U) << "of X nothing was foretold";
}

/// A day on which rig 11 fell at about 210 and rig 12 at about 205, 206, from noon on.
struct FallDay {
  FallDay() {
    plan.rack.models = {{.id = 1, .name = "Vinto"}, {.id = 2, .name = "Mirk"}};
    plan.rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}};
    for (const auto& [rig, rate] :
         {std::pair(RigId(11), 210.0), {12, 150.0}, {11, 211.0}, {12, 151.0}, {11, 209.0}, {12, 149.0}}) {
      const auto id = static_cast<std::int64_t>(plan.sheet.size() + 1);
      plan.sheet.push_back({.id = id, .rig = rig, .state = PassState::Done, .finished_s = 1e9 + 60.0 * id});
      ComparedPass& pass = passes.emplace_back();
      pass.id = id;
      pass.planned = id;
      pass.block = static_cast<int>((id + 1) / 2);
      pass.rig = rig == RigId(11) ? "Vinto" : "Mirk";
      pass.readings.readings = {{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0}};
    }
  }
  void say(RigId rig, bool over, double line, double chance, double said_s = 1e9) {
    plan.foretold.lines.push_back({rig, ReadingId::FallRate, over, line, chance, said_s});
  }
  DayPlan plan;
  std::vector<ComparedPass> passes;
};

TEST(Forecast, IsHeldAgainstWhatWasReadThatDay) {
  FallDay day;
  day.say(11, true, 200.0, 0.9);        // came true
  day.say(12, true, 200.0, 0.7);        // did not
  day.say(11, true, 210.0, 0.8);        // lies across
  day.say(12, false, 200.0, 0.9, 2e9);  // said afterwards
  day.say(99, true, 200.0, 0.9);        // nobody filmed it
  day.plan.foretold.orders = {{ReadingId::FallRate, {12, 11}, 1e9}, {ReadingId::FallRate, {11, 12}, 2e9}};
  const ForecastOutcome out = outcomeOf(day.plan, day.passes);
  std::vector<ForetoldState> states;
  for (const LineOutcome& line : out.lines) states.push_back(line.state);
  EXPECT_EQ(states,
            (std::vector{ForetoldState::CameTrue, ForetoldState::CameFalse, ForetoldState::AcrossTheLine,
                         ForetoldState::SaidTooLate, ForetoldState::NotRead}));
  ASSERT_TRUE(out.brier);
  EXPECT_NEAR(*out.brier, (0.1 * 0.1 + 0.7 * 0.7) / 2.0, 1e-12);
  EXPECT_EQ(out.orders[0].pairs->reversed, 1U);
  EXPECT_TRUE(out.orders[1].saidTooLate);
}

TEST(Forecast, IsTooLateAfterAPassBesideTheSheetWasRead) {
  FallDay day;
  day.plan.sheet.clear();
  for (ComparedPass& pass : day.passes) {
    pass.planned.reset();
    pass.from = Provenance{.madeAt_s = 1.5e9};
  }
  day.say(11, true, 200.0, 0.9, 1.4e9);
  day.say(11, true, 200.0, 0.9, 1.6e9);
  const ForecastOutcome out = outcomeOf(day.plan, day.passes);
  EXPECT_EQ(out.lines[0].state, ForetoldState::CameTrue);
  EXPECT_EQ(out.lines[1].state, ForetoldState::SaidTooLate);
}

TEST(Forecast, SaysWhatTheEyeAboveGetsWrongByReading) {
  FallDay day;
  day.say(11, true, 200.0, 0.9);
  day.say(12, true, 200.0, 0.8);
  day.say(12, false, 100.0, 0.4);  // over it by 60 %, and it was over
  const auto eye = eyeAbove({day.plan}, {outcomeOf(day.plan, day.passes)});
  ASSERT_EQ(eye.size(), 1U);
  EXPECT_EQ(eye[0].lines, 3U);
  EXPECT_NEAR(eye[0].foretold, (0.9 + 0.8 + 0.6) / 3.0, 1e-12);
  EXPECT_NEAR(eye[0].came, 2.0 / 3.0, 1e-12);
}

TEST(Forecast, KnowsThatDepthLooksLessFromStraightAbove) {
  EXPECT_NEAR(*apparentDepth(GramsPerKilogram(0.0)), 0.750188, 1e-6);
  EXPECT_LT(*apparentDepth(GramsPerKilogram(35.0)), 0.7501);
}

TEST(WaterShift, OfAFallFollowsFromTheWeightInTheWater) {
  // 12 g that weigh 1 g in water of 6 g/kg, and a head of 7 g of lead.
  const Model model{.id = 1, .name = "Vinto", .weight_g = 12.0};
  const Rig rig{.id = 2, .model = 1, .head_g = 7.0};
  const WaterState brackish{GramsPerKilogram(6.0), Celsius(11.0)},
      salt{GramsPerKilogram(12.0), Celsius(11.0)};
  const auto shift = fallShift(model, rig, Grams(1.0), brackish, salt);
  ASSERT_TRUE(shift) << shift.error().message;
  // By hand: displaced 11 g of water; lead of 11.3 g/cm³.
  const double before = density(brackish)->value(), after = density(salt)->value();
  const double head = 7.0 * (1.0 - before / 11300.0), headAfter = 7.0 * (1.0 - after / 11300.0);
  const double body = 1.0 - 11.0 / before * (after - before);
  EXPECT_NEAR(shift->ratio, std::sqrt((headAfter + body) * before / ((head + 1.0) * after)), 1e-9);
  EXPECT_LT(shift->ratio, 0.997);
  EXPECT_NEAR(fallShift(model, rig, Grams(1.0), salt, salt)->ratio, 1.0, 1e-12);
  EXPECT_FALSE(fallShift({.id = 1}, rig, Grams(1.0), brackish, salt)) << "what it weighs is not known";
  // Without falls on two heads the body is taken as weightless, on a head only.
  Rack rack{.models = {model}, .rigs = {rig}};
  const auto nobody = [](const ComparedPass&) -> const Rig* { return nullptr; };
  const auto assumed = fallShift({}, nobody, rack, rig, brackish, salt);
  ASSERT_TRUE(assumed);
  EXPECT_TRUE(assumed->bodyAssumed);
  EXPECT_NEAR(assumed->ratio, fallShift(model, rig, Grams(0.0), brackish, salt)->ratio, 1e-12);
  EXPECT_FALSE(fallShift({}, nobody, rack, Rig{.id = 3, .model = 1}, brackish, salt));
}

TEST(Retest, PlansTheSamePassesOnceMoreAndNamesTheChange) {
  DayPlan day;
  day.name = "Pool";
  day.sheet = {
      {.id = 3, .rig = 7, .speed_mm_s = 250.0, .block = 2, .state = PassState::Fouled, .whyFouled = "a leaf"},
      {.id = 4, .rig = 7, .block = 2, .attempt = 2, .state = PassState::Done, .finished_s = 1e9}};
  day.heldEqual[0].exception = "another rod";
  day.foretold.lines = {{.rig = 7}};
  day.photos = {"then.jpg"};
  const DayPlan again = retestOf(day, 20, "2027-06-01", "another hook");
  EXPECT_EQ(again.id, DayId(20));
  EXPECT_TRUE(again.foretold.lines.empty()) << "it is expected anew";
  EXPECT_TRUE(again.photos.empty());
  EXPECT_EQ(again.date, "2027-06-01");
  EXPECT_EQ(again.name, "Pool, again: another hook");
  ASSERT_EQ(again.sheet.size(), 1U);
  EXPECT_EQ(again.sheet[0].id, PlannedPassId(21));
  EXPECT_EQ(again.sheet[0].state, PassState::Planned);
  EXPECT_EQ(again.sheet[0].speed_mm_s, 250.0);
  EXPECT_EQ(again.sheet[0].whyFouled, "");
  EXPECT_EQ(again.heldEqual.front().exception, "");
  EXPECT_EQ(again.heldEqual.back().value, "another hook");
}

TEST(Dates, AreDaysOfTheCalendar) {
  EXPECT_EQ(dateAt(0.0), "1970-01-01");
  EXPECT_EQ(dateAt(1809216000.0 + 3600.0), "2027-05-02");
  EXPECT_EQ(dateAt(-1.0), "1969-12-31");
  EXPECT_EQ(*dayNumberOf("2027-05-02") * 86400.0, 1809216000.0);
  for (const char* wrong : {"2027-02-29", "2027-5-2", "today", "2027-13-01", "2027-05-0x", ""})
    EXPECT_FALSE(dayNumberOf(wrong)) << wrong;
}

}  // namespace
}  // namespace fin
