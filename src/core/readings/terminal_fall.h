// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <numbers>

#include <optional>

#include "core/signals/series.h"
#include "core/units/result.h"

namespace fin {

/// A fall from rest towards a steady speed: v(t) = v∞ tanh((t − t0)/τ), so the depth is
/// y0 + v∞ τ ln cosh((t − t0)/τ) after t0 and y0 before it (quadratic drag; e.g. Batchelor, An Introduction
/// to Fluid Dynamics, 1967, §5.11).
struct TerminalFall {
  double start_s = 0.0;      ///< t0
  double steadySpeed = 0.0;  ///< v∞, length units per second
  double timeConstant_s = 0.0;
  double speedSd = 0.0;
  double timeConstantSd_s = 0.0;
  double residualSd = 0.0;

  /// When 95 % of the steady speed is reached: t0 + 1.832 τ.
  [[nodiscard]] double settled_s() const;
  /// Drop until then: 1.164 v∞ τ.
  [[nodiscard]] double settleDistance() const;

  static constexpr double kSettledAt = 1.831781;    ///< time constants: atanh 0.95
  static constexpr double kSettledDrop = 1.163951;  ///< of v∞ τ: ln cosh of it
  /// That drop over how far the steady line lies behind the start, which is ln 2 of v∞ τ.
  static constexpr double kSettledOverLag = kSettledDrop / std::numbers::ln2;
};

/// Fits the approach to the depth (positive down) until `until_s`. Least squares; start and time constant
/// over a grid and then by a pattern search with halving steps (R. Hooke & T. A. Jeeves, "Direct search"
/// solution of numerical and statistical problems, 1961), the rest linear inside. Standard deviations by the
/// Jacobian at the solution, widened for residuals that go together (serial_correlation.h). Against closed
/// forms: speed within 1e-3, time constant within 1 % without noise.
/// Errors: Unsupported with too few samples or when nothing falls.
Result<TerminalFall> fitTerminalFall(const Series& depth, double until_s);

/// When the fall ends within the series: the last time from which the downward speed, over a window of
/// `window_s`, stays below half the speed before it. None when it falls to the end.
std::optional<double> touchDown(const Series& depth, double window_s);

}  // namespace fin
