// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>

namespace fin {

/// The lag-one correlation of residuals in their order: 0 … 0.999, negative ones taken as 0.
double lagOneCorrelation(std::span<const double> residuals);

/// By how much the variance of a fit to such residuals is larger than were they independent:
/// (1 + r) / (1 − r) with their lag-one correlation (G. V. Bayley & J. M. Hammersley, The "effective" number
/// of independent observations in an autocorrelated time series, 1946). It holds for errors that fade
/// geometrically and are few against the series' length.
double correlationInflation(std::span<const double> residuals);

}  // namespace fin
