// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/forecast.h"

#include <algorithm>

namespace fin {

std::optional<double> brierScore(const std::vector<ForetoldFact>& facts) {
  double sum = 0.0, n = 0.0;
  for (const ForetoldFact& fact : facts) {
    if (!fact.was) continue;
    const double off = fact.chance - (*fact.was ? 1.0 : 0.0);
    sum += off * off;
    n += 1.0;
  }
  if (n == 0.0) return std::nullopt;
  return sum / n;
}

std::optional<OrderForetold> orderForetold(const std::vector<std::string>& order, const Spread& spread) {
  OrderForetold out;
  for (const RigPair& pair : spread.pairs) {
    if (!pair.apart) continue;
    const auto higher = std::find(order.begin(), order.end(), spread.rigs[pair.a].rig);
    const auto lower = std::find(order.begin(), order.end(), spread.rigs[pair.b].rig);
    if (higher == order.end() || lower == order.end()) continue;
    ++out.apart;
    if (higher > lower) ++out.reversed;
  }
  if (out.apart == 0) return std::nullopt;
  return out;
}

}  // namespace fin
