// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/signals/series.h"
#include "core/units/result.h"

namespace fin {

struct PeriodicFitOptions {
  double lowest_Hz = 0.3;
  double highest_Hz = 60.0;
  int harmonics = 3;
};

struct PeriodicFit {
  double frequency_Hz = 0.0;
  double frequencySd_Hz = 0.0;  ///< from the fit's covariance, residual correlation allowed for
  double mean = 0.0;
  std::vector<double> amplitudes;  ///< of the fundamental and its harmonics, half peak-to-peak
  double explained = 0.0;          ///< share of the variance
  double residualSd = 0.0;
  double chance = 1.0;  ///< probability that white noise alone shows so high a peak
  std::size_t n = 0;
};

/// The fundamental of a periodic signal sampled at any times.
///
/// Start: generalised Lomb–Scargle. Finish: least squares of a harmonic series, the frequency by
/// minimisation of the residual sum. Candidates are the strongest peaks and their halves and thirds; a lower
/// one is taken only where its own fundamental is really there and the residual falls by a good part, so that
/// neither the double nor the half of a lopsided wobble is reported.
/// Uncertainty: covariance of the full problem, frequency included, times the residuals' correlation. For a
/// sinusoid in white noise it reaches the Cramér–Rao bound (D. Rife & R. Boorstyn, Single tone parameter
/// estimation, 1974); see bench/.
/// Errors: Unsupported with fewer than 8 samples, without spread, or when no frequency lies between the
/// limits.
Result<PeriodicFit> fitPeriodic(const Series& series, const PeriodicFitOptions& options);

}  // namespace fin
