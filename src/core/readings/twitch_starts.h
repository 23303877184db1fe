// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

namespace fin {

/// When a person says that twitches start, in place of what would be found; and which of them do not count
/// (a fouled line, a late hand). True time from the clip's first frame, s.
struct TwitchStarts {
  std::vector<double> starts_s;   ///< rising
  std::vector<double> leftOut_s;  ///< some of them

  /// Nothing happens within 20 ms of one that is there.
  void add(double at_s);
  /// Of the start nearest to a time; nothing where there is none.
  void remove(double near_s);
  /// Not past its neighbours.
  void move(double near_s, double to_s);
  /// Leaves it out, or takes it in again.
  void toggleExcluded(double near_s);
  [[nodiscard]] bool leavesOut(double start_s) const;

  friend bool operator==(const TwitchStarts&, const TwitchStarts&) = default;
};

}  // namespace fin
