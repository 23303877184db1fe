// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/signals/series.h"

namespace fin {

struct Spectrum {
  std::vector<double> frequency_Hz;  ///< evenly spaced
  std::vector<double> power;         ///< 0 … 1: share of the variance that a sinusoid there explains
};

/// Generalised Lomb–Scargle periodogram with a floating mean, equal weights (M. Zechmeister & M. Kürster,
/// The generalised Lomb–Scargle periodogram, A&A 496, 2009, eq. 4–12). For samples at any times. The grid is
/// `perWidth` points to the width 1/span of a peak.
Spectrum periodogram(const Series& series, double from_Hz, double to_Hz, double perWidth = 6.0);

/// The highest places of a spectrum that are higher than both neighbours, best first: indices.
std::vector<std::size_t> spectrumPeaks(const Spectrum& spectrum, std::size_t most);

}  // namespace fin
