// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/control_drift.h"
#include "support/reading_words.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

ComparedPass made(double hour, double value, bool control) {
  ComparedPass out;
  out.rig = control ? "control" : "other";
  out.control = control;
  out.made_s = 3600.0 * hour;
  out.readings.readings = {{ReadingId::FallRate, value, "mm/s", 0.5, 30.0}};
  return out;
}

// The data set "women" of R: lm(weight ~ height) has a slope of 3.45 with a standard error of 0.09114; with
// 13 degrees of freedom qt(0.975, 13) = 2.160369.
TEST(ControlDrift, IsALineThroughTheControlsPasses) {
  const double weights[] = {115, 117, 120, 123, 126, 129, 132, 135, 139, 142, 146, 150, 154, 159, 164};
  std::vector<ComparedPass> passes{made(58.0, 9000.0, false)};
  for (int i = 0; i < 15; ++i) passes.push_back(made(58.0 + i, weights[i], true));
  const auto drift = driftOf(passes, ReadingId::FallRate);
  ASSERT_TRUE(drift) << drift.error().message;
  EXPECT_EQ(drift->passes, 15U);
  EXPECT_NEAR(drift->perHour, 3.45, 1e-9);
  EXPECT_NEAR(drift->u95, 2.160369 * 0.09114, 1e-4);
  EXPECT_NEAR(drift->middle_h, 65.0, 1e-9);
  EXPECT_TRUE(drift->seen);
}

TEST(ControlDrift, NeedsThreePassesAtDifferentTimes) {
  EXPECT_FALSE(driftOf({made(1, 5, true), made(2, 6, true), made(3, 7, false)}, ReadingId::FallRate));
  EXPECT_FALSE(driftOf({made(1, 5, true), made(1, 6, true), made(1, 7, true)}, ReadingId::FallRate));
  EXPECT_FALSE(driftOf({made(1, 5, true), made(2, 6, true), made(3, 7, true)}, ReadingId::RollAngle));
  const auto flat = driftOf({made(1, 5, true), made(2, 6, true), made(3, 5, true)}, ReadingId::FallRate);
  ASSERT_TRUE(flat);
  EXPECT_FALSE(flat->seen);
}

}  // namespace
}  // namespace fin
