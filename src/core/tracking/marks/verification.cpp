// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/verification.h"

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr double kPlaceWeight = 0.02;  ///< likeness lost per squared uncertainty away from the expected place
constexpr double kMostPlaceLoss = 0.25;
constexpr double kStretchSigma = 0.06;  ///< of the distance, from one frame to the next
constexpr double kStretchWeight = 0.06;
constexpr double kAloneLoss = 0.45;     ///< giving one mark of a pair up must be worth it
constexpr double kLikenessZero = 0.35;  ///< likeness at which quality is 0
constexpr double kLikenessFull = 0.90;  ///< and 1

double worth(const MarkChoices& mark, const MarkAppearance::Candidate& candidate) {
  const double away = length(candidate.at - mark.expected).value() / mark.uncertainty_px;
  return candidate.score - std::min(kPlaceWeight * away * away, kMostPlaceLoss);
}

}  // namespace

std::optional<std::size_t> chooseOne(const MarkChoices& mark) {
  std::optional<std::size_t> best;
  for (std::size_t i = 0; i < mark.candidates.size(); ++i) {
    if (!best || worth(mark, mark.candidates[i]) > worth(mark, mark.candidates[*best])) best = i;
  }
  return best;
}

PairChoice choosePair(const MarkChoices& first, const MarkChoices& second, double apart_px) {
  PairChoice best;
  double bestWorth = -1e9;
  const auto consider = [&](PairChoice choice, double value) {
    if (value > bestWorth) {
      bestWorth = value;
      best = choice;
    }
  };
  for (std::size_t i = 0; i < first.candidates.size(); ++i) {
    for (std::size_t j = 0; j < second.candidates.size(); ++j) {
      const double apart = length(first.candidates[i].at - second.candidates[j].at).value();
      const double stretch = (apart - apart_px) / (kStretchSigma * std::max(apart_px, 10.0));
      consider({i, j}, worth(first, first.candidates[i]) + worth(second, second.candidates[j]) -
                           kStretchWeight * stretch * stretch);
    }
  }
  if (const auto alone = chooseOne(first)) {
    consider({alone, std::nullopt}, worth(first, first.candidates[*alone]) + kAloneLoss - kPlaceWeight);
  }
  if (const auto alone = chooseOne(second)) {
    consider({std::nullopt, alone}, worth(second, second.candidates[*alone]) + kAloneLoss - kPlaceWeight);
  }
  return best;
}

double qualityOf(double likeness, double stretchShare) {
  const double look = std::clamp((likeness - kLikenessZero) / (kLikenessFull - kLikenessZero), 0.0, 1.0);
  const double stretch = stretchShare / (2.0 * kStretchSigma);
  return look / (1.0 + 0.5 * stretch * stretch);
}

}  // namespace fin
