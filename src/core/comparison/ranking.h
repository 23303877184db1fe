// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "core/comparison/points.h"
#include "core/comparison/score_table.h"

namespace fin {

/// How graded rigs are put in order.
enum class Scoring {
  Places,  ///< every property ranked, places added with their weights; the least wins
  Points,  ///< 0 to 10 per property by its curve, weighted mean; the most wins
};

struct RankOptions {
  Scoring scoring = Scoring::Places;
  /// Places: the place of the price is added to the place over all. Points: points per unit of money.
  bool againstPrice = false;
  /// A rig counts that has half of the weight, and all properties that weigh more than the mean of them; else
  /// it needs every property that any rig has. What it lacks, and what nobody has, may be anything between 0
  /// and 10 points (C. Manski, 2003): places go by the least that it can have. With Scoring::Points only.
  bool halfIsEnough = false;
  unsigned draws = 4000;
  unsigned seed = 1;

  friend bool operator==(const RankOptions&, const RankOptions&) = default;
};

/// As the best for a purpose is found: by points, half of what it takes is enough.
RankOptions purposeOptions();

/// Chances of the first place; equals share it.
struct Chances {
  double byMeasuring = 0.0;  ///< values drawn within their uncertainty, weights as they stand
  double byWeights = 0.0;    ///< weights drawn about theirs, values as they stand
  double byBoth = 0.0;
};

struct Placing {
  std::size_t entry = 0;
  double place = 1.0;      ///< equals share the mean of their places
  double total = 0.0;      ///< as the scoring says; with what it lacks at nothing
  double most = 0.0;       ///< the same with what it lacks at its best
  double meanPlace = 1.0;  ///< over the draws of the measuring
  double placeFrom = 1.0;  ///< 95 % of these
  double placeTo = 1.0;
  std::vector<std::optional<double>> cells;  ///< by wish: places or points; none where it tells nothing
  Chances first;
};

struct Ranking {
  std::vector<Placing> placings;  ///< best first
  struct Left {
    std::size_t entry = 0;
    std::vector<std::size_t> lacks;  ///< wishes that count and that it has no value of
    std::string why;                 ///< where it lacks none: what else is in the way
  };
  std::vector<Left> left;                      ///< graded, but not to be ranked
  std::vector<std::size_t> nonDiscriminating;  ///< wishes that do not count: known of fewer than
                                               ///< two rigs, or no difference
  std::vector<std::size_t> unread;             ///< wishes that count, and that nobody has: to be filmed
  std::vector<std::size_t> couldPass;  ///< entries that what is not read, or not surely, could put first
  std::string whyNone;                 ///< why nothing is ranked; empty where something is
};

/// Ranks the graded entries. Values are drawn from normal distributions about the means with u95 as their 95
/// % half-widths, shares of a class from their beta distribution; what they share through a known length is
/// drawn once for all rigs and readings; who is not let in by a demanded class comes last in that draw; from
/// four rigs on they are drawn about means that are drawn in towards their own (apart/drawn_in.h). A curve
/// that the tester did not set goes from the worst to the best of the day and stays there while values are
/// drawn. Exact shares of the draws; with 4000 they are good to 0.016 (95 %). Checked against closed forms
/// for two rigs. Stopped, it ends soon and its chances mean nothing.
Ranking rank(const ScoreTable& table, const RankOptions& options, const std::stop_token& stop = {});

/// Of all graded rigs that have one.
std::vector<double> gradedValues(const ScoreTable& table, std::size_t wish);

}  // namespace fin
