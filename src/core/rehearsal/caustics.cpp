// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/caustics.h"

#include <cmath>
#include <numbers>

namespace fin {

constexpr double kSharp = 14.0;  ///< how narrow the lines are

double causticAt(double x, double y, double t, double line) {
  const double k = 2.0 * std::numbers::pi / line;
  const double warp = 0.8 * std::sin(0.37 * k * y + 1.9 * t) + 0.8 * std::sin(0.45 * k * x - 1.3 * t);
  const double a = std::sin(k * (0.8 * x + 0.3 * y) + warp + 2.2 * t);
  const double b = std::sin(k * (0.2 * x - 0.9 * y) - warp - 1.7 * t);
  return std::exp(-kSharp * a * a) + std::exp(-kSharp * b * b);
}

}  // namespace fin
