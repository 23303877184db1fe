// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/apart/drawn_in.h"

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr std::size_t kFewestDrawnIn = 4;

double middleOf(const std::vector<DrawnMean>& means) {
  double sum = 0.0;
  for (const DrawnMean& m : means) sum += m.mean;
  return sum / static_cast<double>(means.size());
}

}  // namespace

double varianceBetween(const std::vector<DrawnMean>& means) {
  const double middle = middleOf(means), n = static_cast<double>(means.size());
  double squares = 0.0, unsure = 0.0;
  for (const DrawnMean& m : means) {
    squares += (m.mean - middle) * (m.mean - middle);
    unsure += m.variance / n;
  }
  return std::max(0.0, squares / (n - 1.0) - unsure);
}

std::vector<DrawnMean> drawnIn(std::vector<DrawnMean> means) {
  if (means.size() < kFewestDrawnIn) return means;
  const double middle = middleOf(means), between = varianceBetween(means);
  for (DrawnMean& m : means) {
    if (!(m.variance > 0.0)) continue;
    const double share = m.variance / (m.variance + between);
    m.mean = share * middle + (1.0 - share) * m.mean;
    m.variance *= 1.0 - share;
  }
  return means;
}

}  // namespace fin
