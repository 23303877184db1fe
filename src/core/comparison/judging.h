// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/comparison/score_table.h"

namespace fin {

/// How a rig was chosen over others: the natural logarithm of its strength, that of a middling one 0.
struct Strength {
  std::string rig;
  double value = 0.0;
  double u95 = 0.0;
  std::size_t duels = 0;
};

/// R. Bradley & M. Terry, 1952: the chance of one over another is its share of both strengths. Half a win and
/// half a loss against strength 1 are added to each, so that who always won is not beyond all bounds; equals
/// are half a win each. By Newton's method; u95 by the inverse of the second derivatives. In the order in
/// which rigs first came. Checked against D. Hunter's iteration, 2004.
std::vector<Strength> strengthsOf(const std::vector<Judgements::Duel>& duels);

/// Every rig's value of a property that is judged: the mean score of its judges by compare(), each judge a
/// block and repeats averaged; where nobody gave scores, its strength as chosen. Pure; on any thread.
std::vector<std::pair<std::string, ScoredValue>> judgedValues(const Judgements& judgements,
                                                              const std::string& property);

}  // namespace fin
