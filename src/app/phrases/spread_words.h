// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>

#include "app/phrases/words.h"
#include "core/comparison/spread.h"

namespace fin::app {

/// What a comparison says first: "Highest: D, 7 to 10 % over B. Lowest: A or C."
QString spreadHeadline(const Spread& spread, ReadingId reading, UnitSystem units);
/// Of two rigs: "D over A by 14 to 18 %", or "C and A: too close to call, 2.5 % apart at most; 4 more passes
/// of each would settle it".
QString spokenPair(const Spread& spread, const RigPair& pair, ReadingId reading, UnitSystem units);
/// "+15 %", as short as it can be said.
QString shortDifference(const Spread& spread, const RigPair& pair, ReadingId reading, UnitSystem units);
/// What else there is to say: of pairs that are too close how many passes they lack, and how it was compared.
QStringList spreadInWords(const Spread& spread);

}  // namespace fin::app
