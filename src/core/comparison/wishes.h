// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/comparison/vote.h"

namespace fin {

/// Which way a reading is wanted. What one tester wants is a fault to another, so it is theirs to say.
enum class Direction { More, Less, Target };

/// Where on a reading 0, 5 and 10 points lie, in the reading's unit; straight between them and level beyond.
/// With a target 10 points lie on it, and `none` is how far off 0 points are (`full` is not used).
struct PointsCurve {
  double none = 0.0;
  std::optional<double> half;  ///< halfway where it is not said
  double full = 0.0;

  friend bool operator==(const PointsCurve&, const PointsCurve&) = default;
};

/// One property that a tester scores by.
struct Wish {
  ReadingId reading{};
  Direction direction = Direction::More;
  double target = 0.0;  ///< only with Direction::Target, in the reading's unit
  double weight = 1.0;  ///< 2 counts double, 0 does not count
  /// Only pulls of about this speed; none takes the speed at which most rigs were pulled.
  std::optional<double> speed_mm_s;
  std::optional<PointsCurve> curve;  ///< none: from the worst of the day to the best
  /// Of a reading in words: the class that is wanted. Its value is the share of passes that were read so, %.
  std::string className = {};
  /// That class is a gate: only a rig most of whose passes were read so is ranked (with Direction::Less only
  /// one most of whose passes were not).
  bool demanded = false;
  /// A property that is judged by eye or hand (judging.h), in place of the reading.
  std::string judged = {};

  friend bool operator==(const Wish&, const Wish&) = default;
};

/// What a lure may be for, as a set of wanted readings.
struct Purpose {
  std::string name;
  std::vector<Wish> wishes;

  friend bool operator==(const Purpose&, const Purpose&) = default;
};
/// Slow roll, fast search, deep hop, hover on the pause, and so on: to be edited and added to.
std::vector<Purpose> usualPurposes();

/// The readings that the day's passes can be scored by without a word from the tester: of the protocol that
/// most rigs were read by, those that as many rigs have, each in its usual direction.
std::vector<Wish> proposedWishes(const std::vector<ComparedPass>& passes);
/// In the direction it is usually wanted; more, where there is no usual one. Of a reading in words the class
/// that most passes were read as.
Wish usualWish(ReadingId reading, const std::vector<ComparedPass>& passes = {});

/// What was judged by eye or hand.
struct Judgements {
  /// 0 to 10 points; the same judge may judge again.
  struct Score {
    std::string property;
    std::string rig;
    std::string judge;
    double points = 0.0;

    friend bool operator==(const Score&, const Score&) = default;
  };
  /// Which of two: 1 for the first, 0 for the second, ½ where they were equal.
  struct Duel {
    std::string property;
    std::string first;
    std::string second;
    double forFirst = 0.5;

    friend bool operator==(const Duel&, const Duel&) = default;
  };
  std::vector<std::string> properties;  ///< as they are offered
  std::vector<Score> scores;
  std::vector<Duel> duels;

  friend bool operator==(const Judgements&, const Judgements&) = default;
};
/// Look, finish, ease of casting and so on: to be edited and added to.
Judgements usualJudgements();

/// By how much rigs must differ in a reading for it to matter to the tester, as CompareOptions::worth.
struct Worth {
  ReadingId reading{};
  double difference = 0.0;

  friend bool operator==(const Worth&, const Worth&) = default;
};
/// None where nothing was said.
std::optional<double> worthOf(const std::vector<Worth>& worths, ReadingId reading);

/// What the tester decides by. A value: undo swaps whole ones.
struct VerdictPlan {
  std::vector<Wish> wishes;  ///< none: as proposed
  std::vector<Purpose> purposes = usualPurposes();
  double prey_mm = 80.0;   ///< length of what the fish eat
  std::string pricesFrom;  ///< when and where prices were noted
  std::string interest;    ///< the testers' interest, declared in the report
  std::string conclusion;  ///< in the tester's own words
  Judgements judgements = usualJudgements();
  std::vector<Worth> worths;  ///< each reading once
  Vote vote;                  ///< by people who do not know whose clips they see

  friend bool operator==(const VerdictPlan&, const VerdictPlan&) = default;
};

std::string_view toString(Direction direction);
std::optional<Direction> directionNamed(std::string_view text);

}  // namespace fin
