// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/readings/scaling.h"
#include "core/units/result.h"

namespace fin {

/// What a rig, and the control piece that is filmed twice every day, gave on one day.
struct BridgedDay {
  std::vector<double> rig;
  std::vector<double> control;
};

/// How a reading of one rig differs from one day to another.
struct DayChange {
  bool byRatio = false;
  double change = 0.0;  ///< the second day over the first: the ratio less one, or the difference
  double from = 0.0;    ///< 95 %
  double to = 0.0;
  double p = 1.0;  ///< two-sided, that there is none
  /// The control was filmed twice on both days, and its own change is taken out. Without it nobody knows
  /// whether it was the lure or the day.
  bool bridged = false;
};

/// (rig₂ − rig₁) − (control₂ − control₁), of logarithms where rigs are compared by ratio and all values are
/// above nought: B. Welch, 1947, over the four samples, degrees of freedom by F. Satterthwaite, 1946. Without
/// the control over the rig's two alone. Errors: BadRequest where a rig has fewer than two values on one of
/// the days, or nothing scatters. Checked against worked values. Pure; on any thread.
Result<DayChange> changeBetween(const BridgedDay& first, const BridgedDay& second, Scaling scaling);

/// What one day gave of a reading.
struct DayMean {
  double mean = 0.0;  ///< geometric where compared by ratio
  std::size_t passes = 0;
};
/// How a reading went over days.
struct History {
  std::vector<DayMean> days;  ///< as they were given
  /// Whether the days differ: Welch's test of means with unequal variances, 1951, over days with two values
  /// and more; none where fewer than two have them, or one of them does not scatter.
  struct Test {
    double f = 0.0;
    double df1 = 0.0;
    double df2 = 0.0;
    double p = 1.0;
  };
  std::optional<Test> test;
  /// Any two of those days, by their place, with p by Holm's step-down; only a bridged one may say that it is
  /// the lure that changed.
  struct Pair {
    std::size_t a = 0;
    std::size_t b = 0;
    DayChange change;
  };
  std::vector<Pair> pairs;
};

History historyOf(const std::vector<BridgedDay>& days, Scaling scaling);

}  // namespace fin
