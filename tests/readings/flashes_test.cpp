// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/flashes.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

/// A brightness of 80 that ripples by one, with a peak of ten frames' width at each given time.
Series withFlashes(const std::vector<std::pair<double, double>>& at_s_by) {
  Series out;
  for (int i = 0; i < 600; ++i) {
    const double t = i / 100.0;
    double y = 80.0 + (i % 3 - 1);
    for (const auto& [at, by] : at_s_by) y += by * std::exp(-0.5 * std::pow((t - at) / 0.03, 2));
    out.add(t, y);
  }
  return out;
}

TEST(Flashes, AreWhatStandsOutOfTheLuresBrightness) {
  // The second is too weak; the third and fourth are one, as it hardly dims between them.
  const auto found =
      flashesIn(withFlashes({{1.0, 40.0}, {2.0, 5.0}, {3.0, 40.0}, {3.08, 40.0}, {5.0, 30.0}}));
  ASSERT_EQ(found.size(), 3U);
  EXPECT_NEAR(found[0], 1.0, 0.011);
  EXPECT_NEAR(found[2], 5.0, 0.011);
  // Apart by a good dip they are two.
  EXPECT_EQ(flashesIn(withFlashes({{3.0, 40.0}, {3.2, 40.0}})).size(), 2U);
}

TEST(Flashes, AreCountedByTheTwitchesThatCount) {
  ReadingSheet sheet;
  const std::vector<TwitchSpan> twitches{
      {{0.5, 1.5}, false}, {{1.5, 2.5}, false}, {{2.5, 3.5}, false}, {{3.5, 4.5}, false}, {{4.5, 5.5}, true}};
  readTwitchFlashes(withFlashes({{1.0, 40.0}, {1.3, 40.0}, {3.0, 40.0}, {4.0, 40.0}, {5.0, 40.0}}), twitches,
                    sheet);
  EXPECT_DOUBLE_EQ(sheet.estimate(ReadingId::FlashesPerTwitch)->value, 1.0);
  EXPECT_DOUBLE_EQ(sheet.estimate(ReadingId::FlashShare)->value, 75.0);
  EXPECT_NEAR(sheet.estimate(ReadingId::FlashShare)->u95, 0.5 * (95.4 - 30.1), 0.1);
}

TEST(Flashes, OfAFallAreARateOverItsSteadyPart) {
  ReadingSheet sheet;
  sheet.evidence().steady = TimeSpan{1.5, 4.5};
  std::vector<std::pair<double, double>> peaks{{1.0, 40.0}};
  for (int i = 0; i < 6; ++i) peaks.emplace_back(1.75 + 0.5 * i, 40.0);
  readFallFlashes(withFlashes(peaks), sheet);
  const Estimate* rate = sheet.estimate(ReadingId::FallFlashRate);
  ASSERT_NE(rate, nullptr);
  EXPECT_DOUBLE_EQ(rate->value, 2.0);
  EXPECT_NEAR(rate->u95, 0.5 * (4.353 - 0.734), 1e-3);
}

TEST(Flashes, AreRefusedOfALureThatIsWhiteAnyway) {
  Series white;
  for (int i = 0; i < 100; ++i) white.add(i / 100.0, 245.0);
  ReadingSheet sheet;
  const std::vector<TwitchSpan> twitches{{{0.0, 1.0}, false}};
  readTwitchFlashes(white, twitches, sheet);
  EXPECT_EQ(sheet.estimate(ReadingId::FlashShare), nullptr);
}

}  // namespace
}  // namespace fin
