// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

#include "core/signals/series.h"

namespace fin {

/// Power of a sound, short stretch by short stretch, in equal steps of frequency from 0 to half the sampling
/// rate (Hann window, half overlapping or closer; P. Welch, The use of fast Fourier transform for the
/// estimation of power spectra, 1967).
struct SoundSpectra {
  double rate_Hz = 0.0;
  double hertzPerBin = 0.0;
  std::vector<double> time_s;              ///< of the middle of each stretch, from the first sample
  std::vector<std::vector<double>> power;  ///< one spectrum a stretch

  [[nodiscard]] bool empty() const { return power.empty(); }
};

/// `size` samples a stretch (a power of two), a new one every `hop` samples. Empty where the sound is
/// shorter.
SoundSpectra soundSpectra(std::span<const float> samples, double rate_Hz, std::size_t size, std::size_t hop);

/// How much a frequency counts for the ear, as a factor of power (A-weighting, IEC 61672-1:2013, equation
/// E.1).
double aWeighting(double frequency_Hz);

/// A-weighted power of each stretch, in dB of an arbitrary zero, against time.
Series earLevel(const SoundSpectra& spectra);

}  // namespace fin
