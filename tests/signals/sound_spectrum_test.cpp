// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/sound_spectrum.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace fin {
namespace {

constexpr double kRate_Hz = 48000.0;

std::vector<float> tone(double frequency_Hz, double amplitude, double length_s) {
  std::vector<float> out(static_cast<std::size_t>(length_s * kRate_Hz));
  for (std::size_t i = 0; i < out.size(); ++i)
    out[i] = static_cast<float>(
        amplitude * std::sin(2.0 * std::numbers::pi * frequency_Hz * static_cast<double>(i) / kRate_Hz));
  return out;
}

// The table is rounded to 0.1 dB and stands at exact thirds of an octave, of which these are the names.
TEST(AWeighting, HasTheStandardsTable) {
  struct Row {
    double frequency_Hz, gain_dB;  // IEC 61672-1:2013, table 3
  };
  for (const Row& row :
       {Row{31.5, -39.4}, Row{63.0, -26.2}, Row{125.0, -16.1}, Row{250.0, -8.6}, Row{500.0, -3.2},
        Row{1000.0, 0.0}, Row{2000.0, 1.2}, Row{4000.0, 1.0}, Row{8000.0, -1.1}, Row{16000.0, -6.6}})
    EXPECT_NEAR(10.0 * std::log10(aWeighting(row.frequency_Hz)), row.gain_dB, 0.2) << row.frequency_Hz;
}

TEST(SoundSpectra, PutATonesPowerWhereItIs) {
  for (const double frequency : {440.0, 1000.0, 6000.0}) {
    const SoundSpectra spectra = soundSpectra(tone(frequency, 0.5, 0.4), kRate_Hz, 2048, 1024);
    ASSERT_FALSE(spectra.empty());
    EXPECT_NEAR(spectra.hertzPerBin, kRate_Hz / 2048.0, 1e-9);
    const auto& power = spectra.power[spectra.power.size() / 2];
    const auto top = std::max_element(power.begin(), power.end()) - power.begin();
    EXPECT_NEAR(static_cast<double>(top) * spectra.hertzPerBin, frequency, spectra.hertzPerBin) << frequency;
  }
  EXPECT_TRUE(soundSpectra(tone(440.0, 0.5, 0.01), kRate_Hz, 2048, 1024).empty())
      << "too short for a stretch";
}

TEST(SoundSpectra, LieInTheMiddlesOfTheirStretches) {
  const SoundSpectra spectra = soundSpectra(tone(440.0, 0.5, 0.2), kRate_Hz, 2048, 512);
  ASSERT_GE(spectra.time_s.size(), 2U);
  EXPECT_NEAR(spectra.time_s[0], 1024.0 / kRate_Hz, 1.0 / kRate_Hz);
  EXPECT_NEAR(spectra.time_s[1] - spectra.time_s[0], 512.0 / kRate_Hz, 1e-9);
}

TEST(EarLevel, RisesByTwentyDecibelsForTenTimesTheAmplitude) {
  const auto level = [](double frequency, double amplitude) {
    const Series s = earLevel(soundSpectra(tone(frequency, amplitude, 0.3), kRate_Hz, 2048, 1024));
    return median(s.y);
  };
  EXPECT_NEAR(level(1000.0, 0.5) - level(1000.0, 0.05), 20.0, 0.01);
  EXPECT_NEAR(level(125.0, 0.5) - level(1000.0, 0.5), -16.1, 1.0) << "a deep tone is heard as softer";
}

}  // namespace
}  // namespace fin
