// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace fin {

enum class Grade { Good, Fair, Poor };

/// A measured number: never a bare double. u95 is the half-width of its 95 % interval, in the same unit;
/// n counts the cycles, events or frames behind it.
struct Estimate {
  double value = 0.0;
  double u95 = 0.0;
  double n = 0.0;
  Grade grade = Grade::Good;
  std::vector<std::string> notes = {};
};

}  // namespace fin
