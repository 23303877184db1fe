// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/planning/water_day.h"
#include "core/units/result.h"

namespace fin {

/// What may be noted of a condition: a number within a range, one of some words, or (wind) either.
struct ConditionSpec {
  Condition what{};
  std::string_view name;  ///< in rules: "clarity"
  std::string_view unit;  ///< of the number; empty where only words are asked for
  double least = 0.0;
  double most = 0.0;
  std::vector<std::string_view> words;  ///< in their order, where they have one
  bool enough = false;                  ///< among the seven that are noted within a minute

  [[nodiscard]] bool takesNumber() const { return least < most; }
};
std::span<const ConditionSpec> conditionSpecs();
const ConditionSpec& specOf(Condition what);
/// BadRequest for a number out of its range or a word that is none of its words; "unknown" is an answer.
Result<void> validate(const ConditionLine& line);

/// Wind by the look of the water: mirror below 0.3 m/s, scales 1.6, glassy ripples 3.4, first crests 5.5,
/// many white 8, all white 10.8, spray.
std::string_view windWord(double m_s);
/// The middle of what such water may be, m/s; none for an unknown word.
std::optional<double> windOf(std::string_view word);

/// The water as it stood at a time: of each condition what was noted last.
class WaterNow {
 public:
  WaterNow() = default;
  /// Lines may come in any order; those noted later than `at_s` do not count yet.
  WaterNow(const std::vector<ConditionLine>& lines, double at_s);

  /// Null where nobody noted it; unknown() where it was asked.
  [[nodiscard]] const ConditionLine* line(Condition what) const&;
  const ConditionLine* line(Condition what) const&& = delete;  ///< it points into this
  /// None where it is not known. Of wind by the look the middle of it.
  [[nodiscard]] std::optional<double> number(Condition what) const;
  /// Likewise; of wind in m/s what it looks like.
  [[nodiscard]] std::optional<std::string_view> word(Condition what) const&;
  std::optional<std::string_view> word(Condition what) const&& = delete;

 private:
  std::vector<ConditionLine> lines_;
};

/// What cannot be true together, each as a sentence; nothing is decided by the program.
std::vector<std::string> contradictionsIn(const WaterNow& water);

/// "spring", "summer", "autumn", "winter" by the month and hemisphere; none without a date.
std::optional<std::string_view> seasonOf(const std::string& date, bool southern);

}  // namespace fin
