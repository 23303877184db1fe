// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>

#include "app/phrases/words.h"
#include "core/comparison/agreement.h"

namespace fin::app {

/// "−3.4", with the digits that its size asks for.
QString signedNumber(double shown);
/// How differences between rigs are shown: "%", or the reading's unit.
ShownUnit differenceUnit(Scaling scaling, ReadingId reading, UnitSystem units);
/// What a comparison says first: "Highest: D, 7 to 10 % over B. Lowest: A or C."
QString spreadHeadline(const Spread& spread, ReadingId reading, UnitSystem units);
/// Of two rigs: "D over A by 14 to 18 %", or "C and A: too close to call, 2.5 % apart at most; 4 more passes
/// of each would settle it".
QString spokenPair(const Spread& spread, const RigPair& pair, ReadingId reading, UnitSystem units);
/// "+15 %", as short as it can be said.
QString shortDifference(const Spread& spread, const RigPair& pair, ReadingId reading, UnitSystem units);
/// What else there is to say: of pairs that are too close how many passes they lack, and how it was compared.
QStringList spreadInWords(const Spread& spread);

/// How far two cameras agree: "Near and Far (8 passes both): Near reads 0.1 % more; a further pass would
/// differ by −3.4 to 3.7 %. 8 of 8 are as close as they claim."
QString spokenCameras(const CamerasAgree& cameras, ReadingId reading, UnitSystem units);

}  // namespace fin::app
