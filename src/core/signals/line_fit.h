// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/signals/series.h"
#include "core/units/result.h"

namespace fin {

struct LineFit {
  double slope = 0.0;  ///< per second
  double slopeU95 = 0.0;
  double meanTime_s = 0.0;
  double meanValue = 0.0;
  double residualSd = 0.0;
  std::size_t n = 0;

  [[nodiscard]] double at(double time_s) const { return meanValue + slope * (time_s - meanTime_s); }
};

/// Straight line by ordinary least squares over real time stamps.
///
/// Uncertainty: residuals that hang together (a sway, a slow drift) count as fewer independent samples,
/// n (1 − r) / (1 + r) with r their lag-one correlation (Bayley & Hammersley, The "effective" number of
/// independent observations in an autocorrelated time series, 1946); t interval on those.
/// Errors: Unsupported with fewer than 3 samples or no time between them.
Result<LineFit> fitLine(const Series& series);

}  // namespace fin
