// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string_view>

#include "core/units/result.h"

namespace fin {

/// An amount as a person types it: a number ("1.8", "1,8", "3/8", "2 1/2") with any unit of its kind, or with
/// none, which then is `usual`. The amount in `wanted`. Units: of length mm, cm, m, in, ft, yd; of speed
/// mm/s, cm/s, m/s, km/h, in/s, ft/s, mph, knots; of mass mg, g, kg, oz, lb, grains; of temperature °C, °F;
/// of volume ml, l, gal (US); of time ms, s, min; with the usual other ways to write them. A unit that is not
/// among them (g/kg, dB) can be typed as it is, or left out. Errors: BadRequest, with what to type instead.
/// Thread-safe. Factors: NIST, Guide for the Use of the International System of Units, SP 811, 2008, appendix
/// B.
Result<double> typedAmount(std::string_view text, std::string_view wanted, std::string_view usual);

}  // namespace fin
