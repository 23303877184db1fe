// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/turning_points.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

TEST(TurningPoints, AreHighsAndLowsByTurnsWithoutTheEndsAndTheRipples) {
  Series s;
  for (int i = 0; i <= 1000; ++i) {
    const double t = 0.01 * i;
    s.add(t, std::sin(t) + 0.05 * std::sin(40.0 * t));
  }
  const auto turns = turningPoints(s, 0.5);
  ASSERT_EQ(turns.size(), 3U);  // π/2, 3π/2, 5π/2; the ripples are too small
  for (std::size_t i = 0; i < turns.size(); ++i) {
    EXPECT_EQ(turns[i].high, i % 2 == 0);
    EXPECT_NEAR(turns[i].t_s, M_PI * (0.5 + static_cast<double>(i)), 0.12);
    EXPECT_NEAR(std::abs(turns[i].value), 1.03, 0.03);
  }
  EXPECT_TRUE(turningPoints(s, 3.0).empty());
  EXPECT_TRUE(turningPoints({}, 0.5).empty());
}

}  // namespace
}  // namespace fin
