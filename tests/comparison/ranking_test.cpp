// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/ranking.h"
#include "support/reading_words.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

using enum Direction;

ScoredValue value(double v, double u95 = 0.0) {
  return {v, u95, 3, {}};
}

/// Rigs named a, b, c … at 10 EUR each, with these rows of values by wish.
ScoreTable table(std::vector<Wish> wishes, std::vector<std::vector<std::optional<ScoredValue>>> cells) {
  ScoreTable out;
  out.wishes = std::move(wishes);
  out.cells = std::move(cells);
  out.speeds_mm_s.resize(out.wishes.size());
  for (std::size_t e = 0; e < out.cells.front().size(); ++e) {
    Entry entry;
    entry.rig = std::string(1, static_cast<char>('a' + e));
    entry.price = 10.0;
    entry.currency = "EUR";
    out.entries.push_back(entry);
  }
  return out;
}
Wish wish(Direction direction, double weight = 1.0) {
  return {.reading = ReadingId::WobbleAngle, .direction = direction, .weight = weight};
}
std::string orderOf(const Ranking& ranking) {
  std::string out;
  for (const Placing& p : ranking.placings) out += static_cast<char>('a' + p.entry);
  return out;
}

TEST(Ranking, GivesEqualsTheMeanOfTheirPlaces) {
  // R 4.2: rank(-c(3, 1, 3, 2, 3)) = 2 5 2 4 2
  EXPECT_EQ(placesOf({3.0, 1.0, 3.0, 2.0, 3.0}), (std::vector<double>{2.0, 5.0, 2.0, 4.0, 2.0}));
}

TEST(Ranking, AddsPlacesWithTheirWeights) {
  // Places: wide 1 2 3; slow (double) 3 1 2; near nought 2 3 1. Sums: 9, 7, 8.
  const Ranking r =
      rank(table({wish(More), wish(Less, 2.0), wish(Target)}, {{value(30), value(20), value(10)},
                                                               {value(300), value(100), value(200)},
                                                               {value(-2), value(9), value(1)}}),
           {});
  EXPECT_EQ(orderOf(r), "bca");
  EXPECT_EQ(r.placings[0].total, 7.0);
  EXPECT_EQ(r.placings[1].total, 8.0);
  EXPECT_EQ(r.placings[2].total, 9.0);
  EXPECT_EQ(*r.placings[0].cells[1], 1.0);
  EXPECT_EQ(r.placings[0].first.byMeasuring, 1.0) << "nothing is unsure";
}

TEST(Ranking, GivesPointsByACurve) {
  const Wish more = wish(More);
  EXPECT_EQ(pointsBy({10.0, {}, 30.0}, more, 25.0), 7.5);
  EXPECT_EQ(pointsBy({10.0, 20.0, 60.0}, more, 40.0), 7.5);
  EXPECT_EQ(pointsBy({10.0, {}, 30.0}, more, 99.0), 10.0);
  EXPECT_EQ(pointsBy({200.0, {}, 100.0}, wish(Less), 125.0), 7.5);
  Wish target = wish(Target);
  target.target = 5.0;
  EXPECT_EQ(pointsBy({20.0, {}, 0.0}, target, 0.0), 7.5);
  EXPECT_EQ(pointsBy({20.0, {}, 0.0}, target, 30.0), 0.0);
  Wish mine = wish(More, 3.0);
  mine.curve = PointsCurve{0.0, {}, 40.0};
  const Ranking r = rank(table({mine, wish(Less)}, {{value(30), value(20)}, {value(2), value(1)}}),
                         {.scoring = Scoring::Points});
  // a: (3 · 7.5 + 0) / 4, b: (3 · 5 + 10) / 4
  EXPECT_EQ(orderOf(r), "ba");
  EXPECT_EQ(r.placings[0].total, 6.25);
  EXPECT_EQ(r.placings[1].total, 5.625);
}

TEST(Ranking, KnowsTheChanceOfTheFirstPlaceUnderMeasuring) {
  // Two rigs, one property: Φ(1 / √(0.6² + 0.8²)) = Φ(1) = 0.8413.
  const double toU95 = 1.959964;
  for (const Scoring scoring : {Scoring::Places, Scoring::Points}) {
    const Ranking r = rank(table({wish(More)}, {{value(10.0, 0.8 * toU95), value(11.0, 0.6 * toU95)}}),
                           {.scoring = scoring, .draws = 40000});
    // Points end at the best of the day, so beyond it both are equal and share; places go on.
    if (scoring == Scoring::Places) {
      EXPECT_EQ(orderOf(r), "ba");
      EXPECT_NEAR(r.placings[0].first.byMeasuring, 0.8413, 0.006) << "3 standard errors of 40,000 draws";
      EXPECT_EQ(r.placings[0].first.byWeights, 1.0);
    }
    EXPECT_NEAR(r.placings[0].first.byMeasuring + r.placings[1].first.byMeasuring, 1.0, 1e-9);
  }
}

TEST(Ranking, KnowsTheChanceUnderOtherWeights) {
  // a wins the first property, b the second: a is first where a Beta(8, 4) variate is over a half.
  const Ranking r = rank(table({wish(More, 2.0), wish(More)}, {{value(2), value(1)}, {value(1), value(2)}}),
                         {.scoring = Scoring::Points, .draws = 40000});
  EXPECT_EQ(orderOf(r), "ab");
  EXPECT_NEAR(r.placings[0].first.byWeights, 0.886719, 0.005);
  EXPECT_EQ(r.placings[0].first.byMeasuring, 1.0);
}

TEST(Ranking, WeighsAgainstThePrice) {
  ScoreTable t = table({wish(More)}, {{value(10), value(9), value(8), value(0)}});
  t.entries[0].price = 20.0;
  t.entries[1].price = 5.0;
  t.entries[2].price.reset();
  t.entries[3].currency = "SEK";
  const Ranking points = rank(t, {.scoring = Scoring::Points, .againstPrice = true});
  EXPECT_EQ(orderOf(points), "ba");
  ASSERT_EQ(points.left.size(), 2U);
  EXPECT_EQ(points.left[0].why, "no price is noted");
  EXPECT_EQ(points.left[1].why, "its price is in SEK, those of the others in EUR");
  // By places both are first once and second once.
  const Ranking places = rank(t, {.againstPrice = true});
  EXPECT_EQ(places.placings[0].place, 1.5);
  EXPECT_EQ(places.placings[0].total, 3.0);
  EXPECT_EQ(places.placings[0].first.byWeights, 0.5);
}

TEST(Ranking, KnowsWhatIsNotBeatenAtItsPrice) {
  EXPECT_EQ(notBeaten({5.0, 10.0, 10.0, 20.0, 5.0}, {3.0, 6.0, 5.0, 6.0, 3.0}),
            (std::vector<bool>{true, true, false, false, true}));
}

TEST(Ranking, InventsNoRank) {
  ScoreTable t = table({wish(More), wish(Less)},
                       {{value(1), value(2), value(3), {}}, {value(1), {}, value(2), value(4)}});
  t.wishes[1].reading = ReadingId::KickAngle;
  t.entries[2].graded = false;
  Ranking r = rank(t, {});
  EXPECT_TRUE(r.placings.empty());
  EXPECT_EQ(r.whyNone, "only one graded rig has all that is scored by");
  ASSERT_EQ(r.left.size(), 2U);
  EXPECT_EQ(r.left[0].lacks, (std::vector<std::size_t>{1}));
  // With only one rig left to have it, it compares nothing and keeps nobody out.
  t.entries[3].graded = false;
  r = rank(t, {});
  EXPECT_EQ(r.nonDiscriminating, (std::vector<std::size_t>{1}));
  EXPECT_EQ(r.placings.size(), 2U);
  for (Wish& w : t.wishes) w.weight = 0.0;
  EXPECT_EQ(rank(t, {}).whyNone, "every property has weight 0");
  EXPECT_EQ(rank(ScoreTable{}, {}).whyNone, "there is no property to score by yet");
  const Ranking equal = rank(table({wish(More)}, {{value(5), value(5)}}), {});
  EXPECT_EQ(equal.whyNone, "the rigs do not differ in anything that is scored by");
  EXPECT_EQ(equal.nonDiscriminating, (std::vector<std::size_t>{0}));
}

TEST(Ranking, CountsWhatIsNotReadAsAnything) {
  const RankOptions options{.scoring = Scoring::Points, .halfIsEnough = true, .draws = 40000};
  // Half, 0.3 and 0.2 of the weight; the curve is the points themselves.
  const auto wishes = [](double a, double b, double c) {
    std::vector<Wish> out{wish(More, a), wish(More, b), wish(More, c)};
    for (Wish& w : out) w.curve = PointsCurve{0.0, {}, 10.0};
    return out;
  };
  const Ranking r = rank(
      table(wishes(0.5, 0.3, 0.2), {{value(8), value(6), {}}, {value(6), value(6), {}}, {{}, value(6), {}}}),
      options);
  ASSERT_EQ(r.placings.size(), 2U);
  EXPECT_NEAR(r.placings[0].total, 5.8, 1e-12);
  EXPECT_NEAR(r.placings[0].most, 7.8, 1e-12);
  EXPECT_EQ(r.unread, std::vector<std::size_t>{2}) << "nobody has the last one";
  ScoreTable one = table(wishes(0.5, 0.3, 0.2),
                         {{value(8), value(6), {}}, {value(6), value(6), {}}, {{}, value(6), value(3)}});
  const Ranking passed = rank(one, options);
  EXPECT_EQ(orderOf(passed), "ba");
  EXPECT_EQ(passed.couldPass, std::vector<std::size_t>{0});
}

TEST(Ranking, GivesNoPlaceForWhatAPurposeMustHaveRead) {
  ScoreTable t = table({wish(More, 2.0), wish(More), wish(More)},
                       {{value(2), value(1), {}}, {value(3), value(1), value(0)}, {{}, value(1), value(2)}});
  const Ranking r = rank(t, {.scoring = Scoring::Points, .halfIsEnough = true, .draws = 4000});
  ASSERT_EQ(r.left.size(), 1U) << "the last one has half of the weight, but not what weighs most";
  EXPECT_EQ(r.left[0].entry, 2U);
  EXPECT_EQ(rank(t, {.halfIsEnough = true}).left.size(), 2U) << "places need everything";
  for (auto& cell : t.cells[0]) cell.reset();
  EXPECT_TRUE(rank(t, {.scoring = Scoring::Points, .halfIsEnough = true}).placings.empty())
      << "nobody has what weighs most";
}

TEST(Ranking, TellsWherePlacesMayLie) {
  const Ranking r =
      rank(table({wish(More)}, {{value(10, 0.1), value(5, 1.0), value(5.1, 1.0)}}), {.draws = 20000});
  EXPECT_EQ(r.placings[0].placeTo, 1.0);
  EXPECT_EQ(r.placings[1].placeFrom, 2.0);
  EXPECT_EQ(r.placings[1].placeTo, 3.0);
  EXPECT_NEAR(r.placings[1].meanPlace, 2.445, 0.02);  // 1 - Phi(0.1 / (sqrt(2) * 0.510)) = 0.445
}

TEST(Ranking, DrawsWhatAllShareOnce) {
  ScoreTable more = table({wish(More)}, {{value(10, 1.0), value(10.5, 1.0), {}}});
  const double apart = rank(more, {.draws = 20000}).placings[0].first.byMeasuring;
  for (auto& cell : more.cells[0]) {
    if (cell) cell->lengthU95 = 0.99;
  }
  EXPECT_NEAR(apart, 0.756, 0.01);  // Phi(0.5 / (sqrt(2) * 0.510))
  EXPECT_GT(rank(more, {.draws = 20000}).placings[0].first.byMeasuring, 0.99)
      << "what both share moves neither";
}

TEST(Ranking, LeavesOutWhoHasNothingOfWhatTheOthersDifferIn) {
  // All that a has is the same for all; without a second property it would have nought over nought.
  const Ranking r =
      rank(table({wish(More, 2.0), wish(More)}, {{value(5), value(5), value(5)}, {{}, value(1), value(3)}}),
           {.scoring = Scoring::Points, .halfIsEnough = true});
  EXPECT_EQ(orderOf(r), "cb");
  ASSERT_EQ(r.left.size(), 1U);
  EXPECT_EQ(r.left[0].entry, 0U);
  EXPECT_EQ(r.left[0].lacks.size(), 1U);
  for (const Placing& p : r.placings) EXPECT_TRUE(std::isfinite(p.total) && std::isfinite(p.first.byBoth));
}

ComparedPass pass(std::int64_t id, const char* rig, double speed, std::vector<Reading> readings) {
  ComparedPass out;
  out.id = id;
  out.rig = rig;
  out.showsAction = true;
  out.readings.readings = std::move(readings);
  out.readings.readings.push_back({ReadingId::TravelSpeed, speed, "mm/s", 2.0, 100.0});
  return out;
}

TEST(ScoreTable, TakesTheSpeedAtWhichMostRigsWerePulled) {
  const auto wobble = [](double angle) {
    return std::vector<Reading>{{ReadingId::WobbleAngle, angle, "deg", 0.5, 9.0}};
  };
  const std::vector<ComparedPass> passes{pass(1, "a", 250, wobble(20)), pass(2, "a", 255, wobble(22)),
                                         pass(3, "b", 262, wobble(30)), pass(4, "a", 400, wobble(50)),
                                         pass(5, "a", 405, wobble(50)), pass(6, "c", 150, wobble(9))};
  const ScoreTable t =
      tableFor(passes, {{.rig = "a"}, {.rig = "b"}, {.rig = "c"}}, {usualWish(ReadingId::WobbleAngle)});
  ASSERT_TRUE(t.speeds_mm_s[0]);
  EXPECT_EQ(*t.speeds_mm_s[0], 255.0);
  EXPECT_EQ(t.cells[0][0]->value, 21.0);
  EXPECT_FALSE(t.cells[0][2]) << "it was pulled at another speed";
  // b has one pass: its half-width takes in t(0.975, 1) = 12.706 times the scatter of a's two, √2.
  EXPECT_NEAR(t.cells[0][1]->u95, std::hypot(0.5, 12.7062 * std::sqrt(2.0)), 1e-3);
}

TEST(Wishes, AreProposedFromWhatMostRigsHave) {
  std::vector<ComparedPass> passes{
      pass(
          1, "a", 250,
          {{ReadingId::WobbleAngle, 20.0, "deg", 0.5, 9.0}, {ReadingId::CycleVariation, 5.0, "%", 0.5, 9.0}}),
      pass(2, "b", 250,
           {{ReadingId::WobbleAngle, 25.0, "deg", 0.5, 9.0}, {ReadingId::KickAngle, 5.0, "deg", 0.5, 9.0}})};
  passes.push_back(pass(3, "c", 0, {{ReadingId::FallRate, 90.0, "mm/s", 0.5, 9.0}}));
  passes.back().protocol = Protocol::Fall;
  const std::vector<Wish> wishes = proposedWishes(passes);
  ASSERT_EQ(wishes.size(), 1U);
  EXPECT_EQ(wishes[0], usualWish(ReadingId::WobbleAngle));
  EXPECT_TRUE(proposedWishes({passes[2]}).empty()) << "one rig: nothing to score";
}

/// So many of four passes were read so.
ScoredValue ofFour(std::size_t so) {
  ScoredValue out = value(25.0 * static_cast<double>(so));
  out.passes = 4;
  out.ofClass = so;
  return out;
}

TEST(Ranking, ADemandedClassIsAGate) {
  Wish glide{.reading = ReadingId::FallMode, .weight = 0.0, .className = "glide", .demanded = true};
  ScoreTable gated = table({wish(More), glide},
                           {{value(9), value(5), value(4), value(3)}, {ofFour(1), ofFour(4), ofFour(3), {}}});
  const Ranking r = rank(gated, {.scoring = Scoring::Points});
  EXPECT_EQ(orderOf(r), "bc") << "a shows it too seldom, of d nobody knows";
  ASSERT_EQ(r.left.size(), 2U);
  EXPECT_EQ(r.left[0].why, "1 of 4 passes showed \"glide\", and more than half is demanded");
  EXPECT_EQ(r.left[1].lacks, std::vector<std::size_t>{1});
  EXPECT_EQ(r.couldPass, std::vector<std::size_t>{0}) << "one of four may well be more than half";
  // By the class alone b, of Beta(4.5, 0.5), is out in 0.014956 of draws and c, of Beta(3.5, 1.5), in
  // 0.160469: c is first where b alone is out, and in half of the draws where both are.
  EXPECT_NEAR(1.0 - r.placings[0].first.byMeasuring, 0.013756, 0.0055) << "4000 draws: three standard errors";
  gated.wishes[1].direction = Less;
  EXPECT_EQ(rank(gated, {.scoring = Scoring::Points}).whyNone,
            "only one graded rig has all that is scored by");
  gated.wishes[1].demanded = false;
  gated.wishes[1].weight = 1.0;
  gated.wishes[1].direction = More;
  EXPECT_EQ(orderOf(rank(gated, {.scoring = Scoring::Points, .halfIsEnough = true})).size(), 4U);
}

}  // namespace
}  // namespace fin
