// SPDX-License-Identifier: GPL-3.0-or-later
// Against R 4.3: prop.test(correct = FALSE), binom.test, poisson.test.
#include "core/signals/count_intervals.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

TEST(CountIntervals, OfAShare) {
  EXPECT_NEAR(wilson(3, 4).from, 0.301, 5e-4);
  EXPECT_NEAR(wilson(3, 4).to, 0.954, 5e-4);
  EXPECT_NEAR(jeffreys(3, 3).from, 0.464417, 5e-7);
  EXPECT_NEAR(jeffreys(3, 3).to, 0.999849, 5e-7);
}

TEST(CountIntervals, OfANumberOfEvents) {
  // Six in three seconds: 2 a second.
  EXPECT_NEAR(garwood(6).from / 3.0, 0.734, 5e-4);
  EXPECT_NEAR(garwood(6).to / 3.0, 4.353, 5e-4);
  EXPECT_DOUBLE_EQ(garwood(0).from, 0.0);
  EXPECT_NEAR(garwood(0).to, 3.689, 5e-4);
}

}  // namespace
}  // namespace fin
