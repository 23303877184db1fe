// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

#include "core/measuring/measure.h"

namespace fin {

/// `agile-fin-readings/1` as JSON.
std::string writeReadings(const PassRequest& request, const PassResult& result);

/// The track as CSV: a row a frame, dot decimals whatever the locale, LF.
std::string writeTrack(const PassResult& result);

}  // namespace fin
