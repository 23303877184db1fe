// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

#include "app/phrases/words.h"
#include "core/comparison/firmness.h"

namespace fin::app {

// How a ranking is put into words, in the window and in the report.

/// "4", "2.5"; decimals only where there are any.
QString plainNumber(double number, int decimals = 2);
QString percent(double share);
/// Who is first, or why nobody is.
/// "Wobble angle"; of a reading in words with the class that is wanted: "How it falls: glide".
QString spokenWish(const Wish& wish);
/// A rig's value of it, with its half-width.
QString spokenValue(const Wish& wish, const ScoredValue& value, UnitSystem units);
QString firstInWords(const ScoreTable& table, const Ranking& ranking);
/// How firm that is: under measuring, and under other weights.
QString firmnessInWords(const ScoreTable& table, const Ranking& ranking);
/// The chance of a first place by measuring, or that one pass each cannot tell it.
QString chanceInWords(const ScoreTable& table, const Placing& placing);
/// Where its place lies in 95 of 100 draws of the measuring: "1 to 3", "2".
QString placesInWords(const Placing& placing);
/// What is shown apart or stays out, a line each: not graded, not to be ranked, readings that do not count.
QStringList leftInWords(const ScoreTable& table, const Ranking& ranking);
/// Why there is no pick: what nobody has.
QString whyNoPick(const ScoreTable& purpose, const Ranking& ranking);
/// Who could be ahead by what is not read yet; empty where nobody could.
QString passedInWords(const ScoreTable& table, const Ranking& ranking);
/// Why a pick is where it is: its readings, the weightiest first.
QString reasonInWords(const ScoreTable& table, const Placing& placing, UnitSystem units);

}  // namespace fin::app
