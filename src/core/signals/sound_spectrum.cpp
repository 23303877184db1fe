// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/sound_spectrum.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>
#include <unsupported/Eigen/FFT>

namespace fin {
namespace {

constexpr double kSilence = 1e-20;

double weighting(double f) {
  const double f2 = f * f;
  return 12194.0 * 12194.0 * f2 * f2 /
         ((f2 + 20.6 * 20.6) * std::sqrt((f2 + 107.7 * 107.7) * (f2 + 737.9 * 737.9)) *
          (f2 + 12194.0 * 12194.0));
}

}  // namespace

double aWeighting(double frequency_Hz) {
  // 1 at 1 kHz.
  const double share = weighting(frequency_Hz) / weighting(1000.0);
  return share * share;
}

SoundSpectra soundSpectra(std::span<const float> samples, double rate_Hz, std::size_t size, std::size_t hop) {
  SoundSpectra out{rate_Hz, rate_Hz / static_cast<double>(size), {}, {}};
  std::vector<float> window(size);
  for (std::size_t i = 0; i < size; ++i) {
    window[i] = static_cast<float>(
        0.5 - 0.5 * std::cos(2.0 * std::numbers::pi * static_cast<double>(i) / static_cast<double>(size)));
  }
  Eigen::FFT<float> transform;
  std::vector<float> stretch(size);
  std::vector<std::complex<float>> spectrum;
  for (std::size_t start = 0; start + size <= samples.size(); start += hop) {
    for (std::size_t i = 0; i < size; ++i) stretch[i] = samples[start + i] * window[i];
    transform.fwd(spectrum, stretch);
    std::vector<double>& power = out.power.emplace_back();
    for (std::size_t k = 0; k <= size / 2; ++k) power.push_back(static_cast<double>(std::norm(spectrum[k])));
    out.time_s.push_back((static_cast<double>(start) + 0.5 * static_cast<double>(size)) / rate_Hz);
  }
  return out;
}

Series earLevel(const SoundSpectra& spectra) {
  std::vector<double> weights;
  for (std::size_t k = 0; !spectra.empty() && k < spectra.power.front().size(); ++k)
    weights.push_back(aWeighting(static_cast<double>(k) * spectra.hertzPerBin));
  Series out;
  for (std::size_t i = 0; i < spectra.power.size(); ++i) {
    double sum = kSilence;
    for (std::size_t k = 0; k < weights.size(); ++k) sum += weights[k] * spectra.power[i][k];
    out.add(spectra.time_s[i], 10.0 * std::log10(sum));
  }
  return out;
}

}  // namespace fin
