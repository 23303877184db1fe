// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>

#include "app/phrases/words.h"
#include "core/comparison/score_table.h"
#include "core/comparison/vote.h"
#include "core/comparison/wishes.h"
#include "core/publishing/filmed_pass.h"

namespace fin::app {

// What is said wherever something leaves the house: films, cards, report, ballot.

/// What everybody who sees it has to know, a line each: what was not tested, one tank, dated prices, the
/// testers' interest, what is shown and not graded.
QStringList caveatsOf(const VerdictPlan& plan, const std::vector<Entry>& shown);
/// "shown, not graded"; empty for what is graded.
QString gradedNote(const Entry& entry);
/// Names of those that are in no order, fit or box.
std::vector<std::string> ungradedAmong(const std::vector<Entry>& entries);

/// What a vote says: how many voted, who is ahead and how surely, whether voters agree with themselves.
QStringList voteInWords(const Vote& vote, const VoteCount& count);
/// "in 61 of 100 (52 to 69)": how often it would be preferred to a middling one.
QString preferenceInWords(const Preferred& rig);
/// "A over B in 60 of 100 (44 to 74): too close to call".
QString pairInWords(const VoteCount& count, const PreferredPair& pair);

/// Names and units as in the window.
FilmLanguage filmLanguage(UnitSystem units);

}  // namespace fin::app
