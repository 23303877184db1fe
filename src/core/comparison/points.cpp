// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/points.h"

#include <algorithm>
#include <cmath>

namespace fin {

std::vector<bool> notBeaten(const std::vector<double>& prices, const std::vector<double>& merits) {
  std::vector<bool> out;
  for (std::size_t i = 0; i < prices.size(); ++i) {
    bool beaten = false;
    for (std::size_t j = 0; j < prices.size(); ++j) {
      beaten |= prices[j] <= prices[i] && merits[j] >= merits[i] &&
                (prices[j] < prices[i] || merits[j] > merits[i]);
    }
    out.push_back(!beaten);
  }
  return out;
}

std::vector<double> placesOf(const std::vector<double>& goodness) {
  std::vector<double> out;
  for (const double own : goodness) {
    const auto better = std::count_if(goodness.begin(), goodness.end(), [&](double g) { return g > own; });
    const auto equal = std::count(goodness.begin(), goodness.end(), own);
    out.push_back(static_cast<double>(better) + 0.5 * (static_cast<double>(equal) + 1.0));
  }
  return out;
}

std::optional<PointsCurve> curveFor(const Wish& wish, const std::vector<double>& values) {
  if (wish.curve) return wish.curve;
  if (values.empty()) return std::nullopt;
  if (wish.direction == Direction::Target) {
    double furthest = 0.0;
    double nearest = 1e300;
    for (const double v : values) {
      furthest = std::max(furthest, std::abs(v - wish.target));
      nearest = std::min(nearest, std::abs(v - wish.target));
    }
    if (!(furthest > nearest)) return std::nullopt;
    return PointsCurve{furthest, {}, 0.0};
  }
  const auto [low, high] = std::minmax_element(values.begin(), values.end());
  if (!(*high > *low)) return std::nullopt;
  return wish.direction == Direction::More ? PointsCurve{*low, {}, *high} : PointsCurve{*high, {}, *low};
}

double pointsBy(const PointsCurve& curve, const Wish& wish, double value) {
  if (wish.direction == Direction::Target) {
    const double off = std::abs(value - wish.target);
    if (!(curve.none > 0.0)) return off > 0.0 ? 0.0 : kMostPoints;
    return kMostPoints * std::clamp(1.0 - off / curve.none, 0.0, 1.0);
  }
  const double half = curve.half.value_or(0.5 * (curve.none + curve.full));
  const bool rising = curve.full >= curve.none;
  const auto along = [rising](double from, double to, double v) {
    if (from == to) return (rising ? v >= to : v <= to) ? 1.0 : 0.0;
    return std::clamp((v - from) / (to - from), 0.0, 1.0);
  };
  return 0.5 * kMostPoints * (along(curve.none, half, value) + along(half, curve.full, value));
}

}  // namespace fin
