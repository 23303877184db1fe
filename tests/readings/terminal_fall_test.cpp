// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/terminal_fall.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace fin {
namespace {

Series fallOf(double speed, double tau, double start, double seconds, double bottom, double noise,
              unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> grain(0.0, noise);
  Series s;
  for (int i = 0; i < static_cast<int>(seconds * 120.0); ++i) {
    const double t = i / 120.0;
    const double since = std::max(t - start, 0.0);
    s.add(t, std::min(speed * tau * std::log(std::cosh(since / tau)), bottom) +
                 (noise > 0.0 ? grain(random) : 0.0));
  }
  return s;
}

struct Case {
  double speed;
  double tau;
};
class TerminalFalls : public testing::TestWithParam<Case> {};

TEST_P(TerminalFalls, AreFittedInsideTheirUncertainty) {
  const auto [speed, tau] = GetParam();
  int inside = 0;
  constexpr int kTries = 20;
  for (unsigned seed = 1; seed <= kTries; ++seed) {
    const auto fit = fitTerminalFall(fallOf(speed, tau, 0.2, 2.5, 1e9, 0.3, seed), 2.5);
    ASSERT_TRUE(fit);
    EXPECT_NEAR(fit->steadySpeed, speed, 0.02 * speed);
    inside += std::abs(fit->steadySpeed - speed) <= 1.96 * fit->speedSd ? 1 : 0;
    EXPECT_NEAR(fit->settleDistance(), 1.164 * speed * tau, 0.15 * 1.164 * speed * tau);
  }
  // 95 of 100 are meant to; 16 of 20 or more happen by chance in 997 of 1000 cases.
  EXPECT_GE(inside, 16);
}

INSTANTIATE_TEST_SUITE_P(Speeds, TerminalFalls,
                         testing::Values(Case{80.0, 0.1}, Case{220.0, 0.2}, Case{420.0, 0.35}));

TEST_P(TerminalFalls, AreGivenBackExactlyWithoutNoise) {
  const auto [speed, tau] = GetParam();
  const auto fit = fitTerminalFall(fallOf(speed, tau, 0.2, 2.5, 1e9, 0.0, 1), 2.5);
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->steadySpeed, speed, 1e-3 * speed);
  EXPECT_NEAR(fit->timeConstant_s, tau, 0.01 * tau);
  EXPECT_NEAR(fit->start_s, 0.2, 2e-3);
  // tanh x = 0.95 at x = ln(39)/2, and ln cosh x there is -ln(1 - 0.95²)/2.
  EXPECT_NEAR(fit->settled_s(), 0.2 + 0.5 * std::log(39.0) * tau, 0.02 * tau + 2e-3);
  EXPECT_NEAR(fit->settleDistance(), -0.5 * std::log(1.0 - 0.95 * 0.95) * speed * tau, 0.012 * speed * tau);
}

TEST(TerminalFall, SaysSoWhenNothingFalls) {
  EXPECT_FALSE(fitTerminalFall(fallOf(0.0, 0.1, 0.2, 2.0, 1e9, 0.0, 1), 2.0));
  EXPECT_FALSE(fitTerminalFall(Series{}, 1.0));
}

TEST(TouchDown, IsFoundWhereTheFallEnds) {
  // 200 mm/s from 0.2 s, τ 0.1: 300 mm are reached 0.2 + 1.5 + 0.069 s after the start.
  const auto landed = touchDown(fallOf(200.0, 0.1, 0.2, 3.0, 300.0, 0.2, 3), 0.12);
  ASSERT_TRUE(landed);
  EXPECT_NEAR(*landed, 0.2 + 1.5 + 0.069, 0.05);
  EXPECT_FALSE(touchDown(fallOf(200.0, 0.1, 0.2, 1.5, 1e9, 0.2, 3), 0.12));
}

TEST(TerminalFall, HasTheConstantsOfItsModel) {
  EXPECT_NEAR(TerminalFall::kSettledAt, std::atanh(0.95), 1e-6);
  EXPECT_NEAR(TerminalFall::kSettledDrop, std::log(std::cosh(std::atanh(0.95))), 1e-6);
  EXPECT_NEAR(TerminalFall::kSettledOverLag, TerminalFall::kSettledDrop / std::log(2.0), 1e-9);
}

}  // namespace
}  // namespace fin
