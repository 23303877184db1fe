// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/measuring.
#pragma once

#include "core/measuring/measure.h"

namespace fin {

/// What a person should know of a pass besides its readings: what is odd about the clip, how well the lure
/// was followed, whether the camera moved, whether its ends were taken for each other.
std::vector<std::string> warningsFor(const PassRequest& request, const Clip& clip, const PassResult& result);

}  // namespace fin
