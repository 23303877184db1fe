// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/exchange/json_documents.h"
#include "core/readings/reading_id.h"

namespace fin {

// A reading stands in documents by its word: "fall_rate".
FIN_ENUM_AS_WORD(ReadingId, readingNamed)

}  // namespace fin
