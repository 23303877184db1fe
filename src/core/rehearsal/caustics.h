// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace fin {

/// Light that ripples have gathered: bright where either of two crossing waves is near its crest, 0 … 2.
/// Places and `line`, about how far bright lines lie apart, in one unit, whichever it is.
double causticAt(double x, double y, double time_s, double line);

}  // namespace fin
