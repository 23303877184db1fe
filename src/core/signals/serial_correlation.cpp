// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/serial_correlation.h"

#include <algorithm>

namespace fin {

double lagOneCorrelation(std::span<const double> residuals) {
  double product = 0.0;
  double power = 0.0;
  for (std::size_t i = 0; i < residuals.size(); ++i) {
    power += residuals[i] * residuals[i];
    if (i > 0) product += residuals[i] * residuals[i - 1];
  }
  return power > 0.0 ? std::clamp(product / power, 0.0, 0.999) : 0.0;
}

double correlationInflation(std::span<const double> residuals) {
  const double r = lagOneCorrelation(residuals);
  return (1.0 + r) / (1.0 - r);
}

}  // namespace fin
