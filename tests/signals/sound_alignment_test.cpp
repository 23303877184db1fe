// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/sound_alignment.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <vector>

namespace fin {
namespace {

constexpr double kStep_s = 0.002;

/// Knocks that die away, over noise: how loud it is as a camera that began at `from_s` hears it, `gain`
/// times.
std::vector<float> heard(const std::vector<double>& knocks_s, double from_s, double gain, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> noise(0.0, 0.002);
  std::vector<float> out;
  for (int i = 0; i < 4000; ++i) {
    const double t = from_s + i * kStep_s;
    double level = 0.01 + std::abs(noise(random));
    for (const double knock : knocks_s) {
      if (t > knock) level += gain * std::exp(-(t - knock) / 0.05);
    }
    out.push_back(static_cast<float>(level));
  }
  return out;
}

TEST(SoundAlignment, FindsTheLagBetweenTwoCamerasToAFewMilliseconds) {
  const std::vector<double> knocks{3.1, 4.05, 6.7};
  for (const double later : {1.234, -0.82, 0.0}) {
    const auto found =
        alignSound(heard(knocks, 1.0, 0.3, 1), heard(knocks, 1.0 - later, 0.08, 2), Seconds(kStep_s));
    ASSERT_TRUE(found) << found.error().message;
    EXPECT_NEAR(found->later.value(), later, 0.003);
  }
}

TEST(SoundAlignment, RefusesRecordingsWithNothingInCommon) {
  EXPECT_FALSE(alignSound(heard({}, 0.0, 0.3, 1), heard({}, 0.0, 0.3, 2), Seconds(kStep_s)));
  // Knocks as even as a clock's fit at every beat.
  std::vector<double> beats;
  for (int i = 1; i < 16; ++i) beats.push_back(0.5 * i);
  const auto even = alignSound(heard(beats, 0.0, 0.3, 1), heard(beats, 0.5, 0.3, 2), Seconds(kStep_s));
  ASSERT_FALSE(even);
  EXPECT_NE(even.error().message.find("stands out"), std::string::npos);
}

}  // namespace
}  // namespace fin
