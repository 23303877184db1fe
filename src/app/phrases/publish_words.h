// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>

#include "app/phrases/words.h"
#include "core/comparison/score_table.h"
#include "core/comparison/wishes.h"
#include "core/publishing/filmed_pass.h"

namespace fin::app {

// What is said wherever something leaves the house: films, cards, report, ballot.

/// What everybody who sees it has to know, a line each: what was not tested, one tank, dated prices, the
/// testers' interest, what is shown and not graded.
QStringList caveatsOf(const VerdictPlan& plan, const std::vector<Entry>& shown);
/// "shown, not graded"; empty for what is graded.
QString gradedNote(const Entry& entry);
/// Names and units as in the window.
FilmLanguage filmLanguage(UnitSystem units);

}  // namespace fin::app
