// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <random>
#include <utility>

#include "core/readings/reading.h"

namespace fin::test {

// 95 of 100 are meant to lie inside. Of 30, fewer than 25 do so by chance in 4 of 1000 cases (binomial). With
// FIN_COVERAGE_PASSES more are made, for a closer look.
constexpr int kFewestInside = 25;
constexpr unsigned kPasses = 30;

/// One pass: what was read, and the truth.
using Trial = std::function<std::pair<ReadingSet, double>(std::mt19937&)>;

/// Whether a reading is held to those whose u95 is meant to fit, too.
enum class Judged { AsUsual, InsideOnly };

/// Of 30 that were read, in proportion: a reading that was refused is not wrong.
double insideOf(ReadingId name, const Trial& trial, Judged judged = Judged::AsUsual);

double between(std::mt19937& random, double low, double high);

}  // namespace fin::test
