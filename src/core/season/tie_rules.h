// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/comparison/wishes.h"
#include "core/season/conditions.h"

namespace fin {

/// The water and what the day has brought so far; rules look at both.
struct DayFacts {
  WaterNow water;
  double hours = 0.0;                ///< since the first rod was at work
  std::optional<std::size_t> takes;  ///< fish and misses; none before a rod was at work
  std::optional<std::size_t> misses;
};

/// One thing that must be so: "clarity < 1", "light = dusk", "wind >= first crests", "prey known".
struct RuleTest {
  enum class Of { Condition, Hours, Takes, Misses };
  enum class How { Below, AtMost, Equal, AtLeast, Above, Known };
  Of of = Of::Condition;
  Condition what{};
  How how = How::Known;
  std::variant<double, std::string> value = 0.0;
};
/// All tests of one of these hold.
using RuleWhen = std::vector<std::vector<RuleTest>>;

/// What is wanted of a lure: a reading, or what is no reading.
struct TieWish {
  enum class Of { Reading, Length, Finish, DaysUnseen };
  Of of = Of::Reading;
  ReadingId reading{};
  Direction direction = Direction::More;
  double target = 0.0;
  bool targetIsPrey = false;
  bool bright = false;  ///< of Finish: bright is wanted, else dull
  double weight = 1.0;
  std::vector<SchoolSide> sides;  ///< the chosen opposite of any silences it
};

/// "clarity < 1 and light = dusk or cloud >= 7": "or" parts ways, each of which is tests joined by "and".
/// Names are those of conditions, and hours, takes, misses. Errors: BadRequest, naming what is not
/// understood.
Result<RuleWhen> parseWhen(const std::string& text);
/// "pause_drift -> 0 x2 (finesse), fall_rate -, length -> prey x2, finish -> dull": readings by their word, +
/// more, − less, → a target, × a weight, sides in brackets. Errors: as above.
Result<std::vector<TieWish>> parseWants(const std::string& text);

/// How a rule stands to the water.
struct RuleState {
  enum class Is { Awake, No, Asleep, Off, Wrong };
  Is is = Is::No;
  std::string why;  ///< of Asleep the name of what is not noted ("clarity"), of Wrong what is not understood
  std::vector<TieWish> wishes;  ///< of Awake, without those that are silenced
  std::vector<TieWish> silenced;
};
/// A rule with an unknown condition sleeps, unless another of its ways holds.
RuleState stateOf(const TieRule& rule, const DayFacts& facts, const std::vector<SchoolSide>& schools);

/// The twenty that the program begins with. They are anglers' opinions, not measured truths.
const std::vector<TieRule>& usualRules();

}  // namespace fin
