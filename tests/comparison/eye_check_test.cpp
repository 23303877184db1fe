// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/eye_check.h"

#include <gtest/gtest.h>

#include <cmath>
#include <map>

namespace fin {
namespace {

std::vector<ComparedPass> read(const std::vector<double>& angles) {
  std::vector<ComparedPass> out;
  for (std::size_t i = 0; i < angles.size(); ++i) {
    ComparedPass pass;
    pass.id = static_cast<std::int64_t>(i) + 1;
    pass.readings.readings = {{ReadingId::WobbleAngle, angles[i], "deg", 0.5, 9.0}};
    out.push_back(pass);
  }
  return out;
}

TEST(EyeCheck, RanksTheEyeAgainstTheReading) {
  // R 4.2: cor(c(1, 2, 3, 4, 5), c(2, 1, 4, 3, 5), method = "spearman") = 0.8
  const std::vector<EyeScore> scores{{1, ReadingId::WobbleAngle, 2}, {2, ReadingId::WobbleAngle, 1},
                                     {3, ReadingId::WobbleAngle, 6}, {4, ReadingId::WobbleAngle, 5},
                                     {5, ReadingId::WobbleAngle, 9}, {1, ReadingId::FallRate, 0}};
  const EyeCheck check = checkEye(scores, read({10, 20, 30, 40, 50}), ReadingId::WobbleAngle);
  ASSERT_TRUE(check.agreement);
  EXPECT_NEAR(check.agreement->correlation, 0.8, 1e-12);
  EXPECT_FALSE(check.repeatSd) << "no clip was scored twice";
  ASSERT_EQ(check.passes.size(), 5U);
  EXPECT_EQ(check.passes.back().pass, 5) << "both place it first";
  EXPECT_EQ(check.passes.back().eyePlace, 1.0);
}

TEST(EyeCheck, KnowsHowSteadyTheEyeIs) {
  // Pairs 4, 5 and 7, 7: squares 0.5 and 0 over one degree of freedom each: √(0.5 / 2).
  const std::vector<EyeScore> scores{{1, ReadingId::WobbleAngle, 4},
                                     {1, ReadingId::WobbleAngle, 5},
                                     {2, ReadingId::WobbleAngle, 7},
                                     {2, ReadingId::WobbleAngle, 7},
                                     {3, ReadingId::WobbleAngle, 1}};
  const EyeCheck check = checkEye(scores, read({10, 20, 30}), ReadingId::WobbleAngle);
  ASSERT_TRUE(check.repeatSd);
  EXPECT_NEAR(*check.repeatSd, 0.5, 1e-12);
  EXPECT_FALSE(
      checkEye(
          {{1, ReadingId::WobbleAngle, 4}, {2, ReadingId::WobbleAngle, 4}, {3, ReadingId::WobbleAngle, 4}},
          read({1, 2, 3}), ReadingId::WobbleAngle)
          .agreement)
      << "an eye that sees no difference has no order";
}

TEST(EyeCheck, ShowsEveryClipTwiceAndNeverTwiceInARow) {
  for (unsigned seed = 0; seed < 50; ++seed) {
    const auto order = blindOrder({1, 2, 3, 4}, seed);
    std::map<PassId, int> times;
    for (std::size_t i = 0; i < order.size(); ++i) {
      ++times[order[i]];
      EXPECT_TRUE(i == 0 || order[i] != order[i - 1]) << seed;
    }
    EXPECT_EQ(times, (std::map<PassId, int>{{1, 2}, {2, 2}, {3, 2}, {4, 2}}));
  }
  EXPECT_NE(blindOrder({1, 2, 3, 4, 5, 6}, 1), blindOrder({1, 2, 3, 4, 5, 6}, 2));
  EXPECT_TRUE(blindOrder({}, 1).empty());
}

}  // namespace
}  // namespace fin
