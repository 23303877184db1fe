// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/film_next.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

using State = FilmNext::State;

/// Falls of four rigs, so many of each: D far ahead, A and C a little apart.
std::vector<ComparedPass> day(std::size_t passes, double ac = 11.0) {
  std::vector<ComparedPass> out;
  const double rates[] = {402.0, 440.0, 402.0 + ac, 480.0};
  const double scatter[] = {0.0, 5.0, -5.0, 3.0, -4.0, 4.0, -3.0, 0.0};
  for (std::size_t k = 0; k < passes; ++k) {
    for (std::size_t r = 0; r < 4; ++r) {
      ComparedPass& pass = out.emplace_back();
      pass.id = static_cast<std::int64_t>(out.size());
      pass.rig = std::string(1, static_cast<char>('A' + r));
      pass.planned = pass.id.value();
      pass.block = static_cast<int>(k) + 1;
      pass.readings.readings = {
          {ReadingId::FallRate, rates[r] + scatter[(k + 3 * r) % 8], "mm/s", 1.0, 60.0}};
    }
  }
  return out;
}
Wish wanted(Direction direction) {
  return {.reading = ReadingId::FallRate, .direction = direction};
}

TEST(FilmNext, LooksFirstAfterThreePassesOfEach) {
  EXPECT_EQ(filmNext({}, {wanted(Direction::More)}, ToSettle::Best).state, State::Nothing);
  EXPECT_EQ(filmNext(day(2), {wanted(Direction::More)}, ToSettle::Best).state, State::TooEarly);
  EXPECT_EQ(filmNext(day(3), {wanted(Direction::More)}, ToSettle::Best).state, State::Settled);
  EXPECT_EQ(filmNext(day(3), {}, ToSettle::Best).state, State::Nothing);
}

TEST(FilmNext, AsksOnlyForThoseThatMayBeBest) {
  const FilmNext most = filmNext(day(4), {wanted(Direction::More)}, ToSettle::Best);
  EXPECT_EQ(most.state, State::Settled) << "D is ahead of all";
  const FilmNext least = filmNext(day(4), {wanted(Direction::Less)}, ToSettle::Best);
  ASSERT_EQ(least.state, State::Open);
  EXPECT_EQ(least.open, (std::vector<std::string>{"A", "C"}));
  EXPECT_EQ(least.settled, (std::vector<std::string>{"B", "D"}));
  EXPECT_GE(least.more, 1U);
  EXPECT_LE(least.more, 4U) << "the last look is at eight passes";
  EXPECT_EQ(least.by, std::vector<ReadingId>{ReadingId::FallRate});
  EXPECT_EQ(filmNext(day(4), {wanted(Direction::More)}, ToSettle::All).open, least.open);
}

TEST(FilmNext, LeavesWhatIsAlikeInPeace) {
  EXPECT_EQ(filmNext(day(4, 0.5), {wanted(Direction::Less)}, ToSettle::Best).state, State::Settled);
}

TEST(FilmNext, LeavesInPeaceWhatDiffersByLessThanIsWorthHaving) {
  const std::vector<Worth> worths{{ReadingId::FallRate, 0.2}};
  EXPECT_EQ(filmNext(day(4), {wanted(Direction::Less)}, ToSettle::Best).state, State::Open);
  EXPECT_EQ(filmNext(day(4), {wanted(Direction::Less)}, ToSettle::Best, worths).state, State::Settled);
  EXPECT_EQ(filmNext(day(4), {wanted(Direction::Less)}, ToSettle::All, worths).state, State::Settled);
}

TEST(FilmNext, WhatWasApartStaysApart) {
  std::vector<ComparedPass> passes = day(4, 30.0);
  ASSERT_EQ(filmNext(passes, {wanted(Direction::Less)}, ToSettle::Best).state, State::Settled);
  // Two more blocks in which C falls as slowly as A.
  for (const ComparedPass& pass : day(6, -28.0)) {
    if (*pass.block > 4) passes.push_back(pass);
  }
  for (std::size_t i = 0; i < passes.size(); ++i) {
    passes[i].id = static_cast<std::int64_t>(i + 1);
    passes[i].planned = static_cast<std::int64_t>(i + 1);
  }
  EXPECT_EQ(filmNext(passes, {wanted(Direction::Less)}, ToSettle::Best).state, State::Settled);
}

}  // namespace
}  // namespace fin
