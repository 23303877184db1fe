// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/rattle.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "core/measuring/hear_pass.h"
#include "core/signals/sound_spectrum.h"
#include "support/reading_words.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

using test::valueOf;

constexpr double kSoundRate_Hz = 48000.0;

std::vector<float> hiss(double seconds, double level, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> noise(0.0, level);
  std::vector<float> out(static_cast<std::size_t>(seconds * kSoundRate_Hz));
  for (float& s : out) s = static_cast<float>(noise(random));
  return out;
}

/// Knocks that die away within a few hundredths of a second, one every 0.7 s.
void addKnocks(std::vector<float>& sound, double pitch_Hz, double loud) {
  for (std::size_t i = 0; i < sound.size(); ++i) {
    const double since = std::fmod(static_cast<double>(i) / kSoundRate_Hz, 0.7) - 0.3;
    if (since < 0.0) continue;
    sound[i] += static_cast<float>(loud * std::exp(-since / 0.02) *
                                   std::sin(2.0 * std::numbers::pi * pitch_Hz * since));
  }
}

ReadingSet read(const HeardPass& heard) {
  ReadingSheet sheet;
  readRattle(heard, sheet);
  return sheet.complete({Protocol::Sound, View::Side, {}, false, false, false});
}

TEST(EarWeight, HasTheValuesOfTheStandard) {
  // IEC 61672-1:2013, table 3, to the tenth of a decibel that it gives.
  const std::pair<double, double> table[] = {{31.62, -39.4}, {100.0, -19.1}, {251.19, -8.6},
                                             {1000.0, 0.0},  {2511.9, 1.3},  {10000.0, -2.5}};
  for (const auto& [frequency, dB] : table) EXPECT_NEAR(10.0 * std::log10(aWeighting(frequency)), dB, 0.06);
}

TEST(Rattle, CountsKnocksAndFindsTheirPitch) {
  HeardPass heard{kSoundRate_Hz, hiss(7.0, 0.003, 1), hiss(1.5, 0.003, 2)};
  addKnocks(heard.window, 2300.0, 0.4);
  const ReadingSet set = read(heard);
  EXPECT_NEAR(valueOf(set, ReadingId::RattleRate), 10.0 / 7.0, 1e-6);
  EXPECT_NEAR(valueOf(set, ReadingId::RattlePeakFrequency), 2300.0, 10.0);
  EXPECT_GT(valueOf(set, ReadingId::RattleLevel), 15.0);
}

TEST(Rattle, ReadsTheLevelOverTheQuietStretch) {
  // The same hiss four times as loud: 12.04 dB, whatever the weighting.
  const ReadingSet set = read({kSoundRate_Hz, hiss(5.0, 0.012, 1), hiss(2.0, 0.003, 2)});
  EXPECT_NEAR(valueOf(set, ReadingId::RattleLevel), 12.04, 0.3);
  EXPECT_EQ(valueOf(set, ReadingId::RattleRate), 0.0) << "an even hiss has no onsets";
  EXPECT_EQ(set.find(ReadingId::RattlePeakFrequency), nullptr);
}

TEST(Rattle, RefusesALevelWithNothingToCompareItWith) {
  const ReadingSet set = read({kSoundRate_Hz, hiss(3.0, 0.01, 1), {}});
  EXPECT_EQ(set.find(ReadingId::RattleLevel), nullptr);
  EXPECT_NE(set.find(ReadingId::RattleRate), nullptr);
}

TEST(Rattle, SuspectsAGainThatFollowsTheLoudness) {
  HeardPass heard{kSoundRate_Hz, hiss(7.0, 0.003, 1), hiss(1.5, 0.003, 2)};
  addKnocks(heard.window, 2300.0, 0.4);
  const Reading fixed = *read(heard).find(ReadingId::RattleLevel);
  EXPECT_NE(fixed.grade, Grade::Poor);
  // From every knock on it is 10 dB softer, and recovers within half a second.
  for (std::size_t i = 0; i < heard.window.size(); ++i) {
    const double since = std::fmod(static_cast<double>(i) / kSoundRate_Hz, 0.7) - 0.3;
    if (since > 0.005) heard.window[i] *= static_cast<float>(std::pow(10.0, -0.5 * (1.0 - since / 0.5)));
  }
  const Reading following = *read(heard).find(ReadingId::RattleLevel);
  EXPECT_EQ(following.grade, Grade::Poor);
  EXPECT_NE(following.notes.back().find("follow the loudness"), std::string::npos) << following.notes.back();
  EXPECT_GT(*following.u95, *fixed.u95 + 2.0);
}

TEST(Rattle, PutsTwoInTurnAtTheirGainsAndClipsNothing) {
  const HeardPass soft{kSoundRate_Hz, std::vector<float>(4800, 0.2F), hiss(1.0, 0.003, 1)};
  const HeardPass loud{kSoundRate_Hz, std::vector<float>(4800, -0.8F), hiss(1.0, 0.006, 2)};
  EXPECT_NEAR(*gainToMatch_dB(soft, loud), -6.02, 0.4);
  const HeardInTurn plain = inTurn(soft, 0.0, loud, 0.0);
  EXPECT_EQ(plain.lowered_dB, 0.0);
  EXPECT_NEAR(plain.second_s, 0.6, 1e-9);
  EXPECT_FLOAT_EQ(plain.samples.front(), 0.2F);
  EXPECT_FLOAT_EQ(plain.samples.back(), -0.8F);
  const HeardInTurn raised = inTurn(soft, 20.0, loud, 0.0);
  EXPECT_NEAR(raised.lowered_dB, 6.02, 0.01) << "ten times 0.2 is twice full scale";
  EXPECT_NEAR(raised.samples.front(), 1.0F, 1e-5);
  EXPECT_NEAR(raised.samples.back(), -0.4F, 1e-4);
  EXPECT_FALSE(gainToMatch_dB(soft, {kSoundRate_Hz, {0.1F}, {}}));
}

TEST(Rattle, RefusesAClippedLevelAndASilentClip) {
  HeardPass heard{kSoundRate_Hz, hiss(7.0, 0.003, 1), hiss(1.5, 0.003, 2)};
  addKnocks(heard.window, 700.0, 1.6);
  for (float& s : heard.window) s = std::clamp(s, -1.0F, 1.0F);
  const ReadingSet clipped = read(heard);
  EXPECT_EQ(clipped.find(ReadingId::RattleLevel), nullptr);
  EXPECT_NE(clipped.refused.front().why.find("clipped"), std::string::npos);
  EXPECT_NEAR(valueOf(clipped, ReadingId::RattleRate), 10.0 / 7.0, 1e-6) << "knocks are counted all the same";

  const ReadingSet silent = read({kSoundRate_Hz, std::vector<float>(96000, 0.0F), hiss(1.0, 0.003, 2)});
  EXPECT_TRUE(silent.readings.empty());
  for (const Refusal& r : silent.refused) EXPECT_NE(r.why.find("silent"), std::string::npos) << r.why;
}

}  // namespace
}  // namespace fin
