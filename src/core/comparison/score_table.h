// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/comparison/wishes.h"

namespace fin {

/// A rig as it is judged.
struct Entry {
  std::string rig;
  std::string model;
  bool graded = true;
  std::string whyNotGraded;
  std::optional<double> price;
  std::string currency;
  std::optional<double> length_mm;

  friend bool operator==(const Entry&, const Entry&) = default;
};

/// A rig's value of one property: the mean over its passes.
struct ScoredValue {
  double value = 0.0;
  double u95 = 0.0;
  std::size_t passes = 0;
  std::string letters;     ///< shared by rigs that cannot be told apart; empty where none was
  double lengthU95 = 0.0;  ///< of u95, through a known length that all share; negative where it lessens
  std::optional<std::size_t> ofClass = {};  ///< of a share: how many passes were read so

  friend bool operator==(const ScoredValue&, const ScoredValue&) = default;
};

struct ScoreTable {
  std::vector<Entry> entries;
  std::vector<Wish> wishes;
  std::vector<std::optional<double>> speeds_mm_s;              ///< by wish: the pulls that count
  std::vector<std::vector<std::optional<ScoredValue>>> cells;  ///< [wish][entry]
  /// By wish: some rig has two passes and more, so that it is known how passes differ. Where it is not,
  /// chances are too sure.
  std::vector<bool> scatterKnown;

  friend bool operator==(const ScoreTable&, const ScoreTable&) = default;
};

/// Every rig's value of every wish, as compare() gives it; of a reading in words the share of its passes with
/// the wanted class, its interval halved (class_spread.h). A rig with one pass cannot tell how its
/// passes scatter, so it is as unsure as the scatter of the others says, where they have two and more. Onset
/// and blow-out come from the rig's ladder. Means, intervals and letters are those of spread.h; the scatter
/// of the others is pooled within rigs (Student's t with its degrees of freedom). Pure; on any thread.
/// What is judged: judging.h.
ScoreTable tableFor(const std::vector<ComparedPass>& passes, std::vector<Entry> entries,
                    std::vector<Wish> wishes, const Judgements& judgements = {});

}  // namespace fin
