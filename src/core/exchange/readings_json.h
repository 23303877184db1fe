// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/measuring/measurement.h"
#include "core/readings/reading.h"

namespace fin {

/// Writes `readings` and `refused` as agile-fin-readings/1 has them into a JSON object.
void putReadings(const ReadingSet& set, nlohmann::ordered_json& into);
nlohmann::ordered_json toJson(const FrameCounts& frames);

}  // namespace fin
