// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

#include "core/signals/series.h"

namespace fin {

/// Standard deviation of what changes from one sample to the next at random, from fourth differences: what
/// bends slowly falls out. 0 of fewer than five samples.
double frameNoise(const Series& series);

/// Share of the variance that sines of these rates explain together (least squares with a mean). With `sides`
/// (one a sample) the first rate also has a sine that goes with them.
double explainedBy(const Series& series, std::span<const double> rates_Hz, std::span<const double> sides);

/// A line at one rate, held against what lies beside it.
struct LineTest {
  double amplitude = 0.0;       ///< half of peak to peak
  double otherAmplitude = 0.0;  ///< of the line that it is held against
  double chance = 1.0;          ///< that noise alone makes so strong a one
};

/// A line at a rate that goes with `sides`, beside plain ones there and at twice the rate: F test of two more
/// parameters, the residuals' correlation allowed for.
LineTest testSignedLine(const Series& series, double rate_Hz, std::span<const double> sides);

/// The phase (in cycles) of a rhythm near a rate, tracked over three cycles at a time.
Series pulsePhase(const Series& series, double rate_Hz);

/// A line at an order of a phase: its power (Hann window) over that of neighbouring orders (F test after
/// D. Thomson, Spectrum estimation and harmonic analysis, Proc. IEEE 70, 1982).
LineTest testLine(const Series& series, const Series& phase, double order);
/// Lines at the orders ½ and 3/2 of a phase together; the stronger one's amplitude.
LineTest testHalfRate(const Series& series, const Series& phase);

}  // namespace fin
