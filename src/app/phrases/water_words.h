// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>

#include "app/phrases/words.h"
#include "core/season/catches/catch_report.h"
#include "core/season/tie_on.h"

namespace fin::app {

/// "Clarity", as a label; "how far down a white disc of 30 cm is seen" as its help.
QString spokenName(Condition what);
QString helpFor(Condition what);
/// "2.2 m", "dusk", "unknown".
QString spokenLine(const ConditionLine& line, UnitSystem units);
/// All that is known, in one line: "14 °C · disc 2.2 m · scales · bright".
QString spokenWater(const WaterNow& water, UnitSystem units);

/// "fish", "lure lost", "tied on".
QString spokenName(RunEventKind kind);
/// "17:43   fish, rod 1".
QString spokenEvent(const RunEvent& event);
/// "17:43", where the person is.
QString spokenClock(double at_s);

QString spokenSide(SchoolSide side);
/// "Kick width, the more the better", "Length near 70 mm", "Finish, dull".
QString spokenWish(const TieWish& wish, UnitSystem units);
/// What speaks for a rig, a line each: "Kick width, the more the better (felt before seen): 10.0 points".
QStringList reasonsFor(const TieOn& result, const TieChoice& choice, const std::vector<TieRule>& rules,
                       UnitSystem units);
/// "5.5 to 8.0".
QString spokenPoints(const TieChoice& choice);

/// "1.38 an hour (0.63 to 2.63)"
QString spokenRate(const Rate& rate);
/// "3.2 times as many (0.8 to 18.6), p 0.083"
QString spokenRatio(const RateRatio& ratio);
/// Two rigs in a sentence or two: what the blocks say first, what place and hour may have done, and how many
/// hours would tell.
QString spokenPair(const CatchReport& report, const RigsByCatch& pair);
QString spokenHow(ShrunkRates::How how);

/// A speed in all the units that anglers use: "1.8 km/h · 1.1 mph · 0.97 kn · 500 mm/s".
QString inAllSpeeds(double mm_s);

}  // namespace fin::app
