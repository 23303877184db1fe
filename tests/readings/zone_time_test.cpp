// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/zone_time.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

/// 60 mm ahead and 20 back, at once; then it drifts.
TwitchPath jerk(double drift_mm_s, double filmed_s = 2.0) {
  return {{0.0, 1e-6, 2e-6, filmed_s}, {0.0, 60.0, 40.0, 40.0}, {0.0, 0.0, 0.0, drift_mm_s * filmed_s}, 2e-6};
}
std::vector<TwitchPath> alike(const TwitchPath& path) {
  return std::vector<TwitchPath>(6, path);
}

TEST(ZoneTime, CountsTheSecondsUntilATwitchEndsBeyond) {
  const auto level = secondsInZone(alike(jerk(0.0)), {100.0, 50.0, 2.0});
  ASSERT_TRUE(level) << level.error().message;
  EXPECT_NEAR(level->mean.value, 10.0, 0.03);
  EXPECT_NEAR(level->tenth.value, 10.0, 0.03);
  EXPECT_LT(level->mean.u95, 0.1) << "all twitches are the same";
  const auto sinking = secondsInZone(alike(jerk(-10.0)), {100.0, 50.0, 2.0});
  EXPECT_NEAR(sinking->mean.value, 5.0, 0.03);
}

TEST(ZoneTime, GoesOnAlongTheLastOfAPauseThatIsLongerThanFilmed) {
  // Filmed to 2 s and asked for 3: 15 s without a drift, 5 s with one of 10 mm/s.
  EXPECT_NEAR(secondsInZone(alike(jerk(0.0)), {100.0, 50.0, 3.0})->mean.value, 15.0, 0.05);
  EXPECT_NEAR(secondsInZone(alike(jerk(-10.0)), {100.0, 50.0, 3.0})->mean.value, 5.0, 0.05);
}

TEST(ZoneTime, IsUnsureWhereTwitchesDiffer) {
  std::vector<TwitchPath> twitches = alike(jerk(0.0));
  for (std::size_t i = 0; i < 3; ++i) twitches.push_back(jerk(-20.0));
  const auto mixed = secondsInZone(twitches, {100.0, 50.0, 2.0});
  EXPECT_GT(mixed->mean.value, 2.5);
  EXPECT_LT(mixed->mean.value, 10.0);
  EXPECT_LT(mixed->tenth.value, mixed->mean.value);
  EXPECT_GT(mixed->mean.u95, 0.5);
}

TEST(ZoneTime, StaysAMinuteAtMost) {
  TwitchPath back{{0.0, 1.0, 2.0}, {0.0, 10.0, 0.0}, {0.0, 0.0, 0.0}, 1.0};
  EXPECT_NEAR(secondsInZone(alike(back), {100.0, 50.0, 2.0})->mean.value, 60.0, 0.1);
}

TEST(ZoneTime, RefusesWhatTheFilmedTwitchesCannotTell) {
  const auto why = [](const std::vector<TwitchPath>& paths, double interval_s) {
    const auto told = secondsInZone(paths, {100.0, 50.0, interval_s});
    return told ? std::string() : told.error().message;
  };
  EXPECT_NE(why(std::vector<TwitchPath>(5, jerk(0.0)), 2.0).find("six twitches"), std::string::npos);
  EXPECT_NE(why(alike(jerk(0.0)), 3.1).find("film longer ones"), std::string::npos);
  TwitchPath slow = jerk(0.0);
  slow.rearmost_s = 0.8;
  EXPECT_NE(why(alike(slow), 0.5).find("rearmost"), std::string::npos);
}

}  // namespace
}  // namespace fin
