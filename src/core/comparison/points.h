// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/comparison/wishes.h"

namespace fin {

inline constexpr double kMostPoints = 10.0;

/// By entry: no other is at least as cheap and as good (the greater merit) and better in one of both.
std::vector<bool> notBeaten(const std::vector<double>& prices, const std::vector<double>& merits);

/// 1 for the greatest; equals share the mean of their places.
std::vector<double> placesOf(const std::vector<double>& goodness);
/// 0 to 10.
double pointsBy(const PointsCurve& curve, const Wish& wish, double value);
/// As set, or from the worst to the best of these values; none where they are all the same.
std::optional<PointsCurve> curveFor(const Wish& wish, const std::vector<double>& values);

}  // namespace fin
