// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/sheet.h"
#include "core/signals/cycles.h"
#include "core/units/result.h"

namespace fin {

/// How many pixels of the picture are a millimetre of the lure's plane, by the lure's own length.
///
/// Model: in every wobble (every half second without one) there is an instant at which the body shows its
/// whole length. The longest of each stretch, smoothed over a tenth of it and less 0.6 of the frame noise, is
/// that length; the median counts. It misleads a body that never turns square on: 1 - cos of what is left,
/// 10° less the swing, is in the uncertainty. u95²/scale² = (u_L/L)² + 2 (0.6/ℓ)² + (1 - cos max(10° - a,
/// 0))².
struct OwnRuler {
  Estimate scale;  ///< px/mm
  [[nodiscard]] double relativeU95() const { return scale.u95 / scale.value; }
};

struct OwnRulerInput {
  Series length_px;           ///< nose to tail, times the cosine of the angle of sight
  std::vector<Cycle> cycles;  ///< of the wobble; none where there is none
  double swing_deg = 0.0;     ///< half of peak to peak; what a view from above sees whole may say 10 and more
  double length_mm = 0.0;
  double lengthU95_mm = 0.0;
};

/// Errors: Unsupported where too few frames show both ends. Pure; on any thread.
Result<OwnRuler> ownRuler(const OwnRulerInput& input);

/// The relative u95 of a scale that the lure's own length gives, for a body of so many pixels.
double ownRulerRelativeU95(double length_mm, double lengthU95_mm, double length_px, double swing_deg);

}  // namespace fin
