// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/voted_marks.h"

#include <algorithm>
#include <cmath>
#include <span>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kStrongest = 60.0;  ///< more does not make a spot surer
constexpr double kSamePlace = 0.02;  ///< of the length
constexpr double kSameRow_px = 6.0;
constexpr double kThinTail = 0.42;  ///< of the greatest width
constexpr double kThickFront = 0.7;
constexpr double kWorm = 0.09;  ///< of its length: thinner is no other bait
constexpr double kPlainSpot = 13.0;
constexpr double kPlainestSpot = 25.0;
constexpr double kAnywhere = 0.17;   ///< what a spot counts far from where it is usual
constexpr double kNoSpot = 8.0;      ///< strength of a spot, where it is usual, that is as good as none
constexpr double kOtherSpot = 0.06;  ///< of the length, from which a spot is another one
constexpr double kSpotHolds = 0.35;  ///< of a view's own strongest, for its place to be taken

/// Where along the body a mark is usual.
struct Usual {
  MarkName name;
  double share;
  double spread;
  double from;
  double to;
};

double bell(double x, double middle, double spread) {
  return std::exp(-0.5 * std::pow((x - middle) / spread, 2));
}

VotedMark vote(const std::vector<CutOut>& views, const Usual& usual) {
  std::vector<std::vector<BodySpot>> all;
  for (const CutOut& view : views) all.push_back(spotsOn(view.body, usual.from, usual.to, 8));
  VotedMark best{.name = usual.name, .share = usual.share};
  double most = kNoSpot * static_cast<double>(views.size());
  std::vector<std::pair<double, double>> worths;  // by share
  for (const auto& candidates : all) {
    for (const BodySpot& candidate : candidates) {
      VotedMark voted{.name = usual.name, .share = candidate.share};
      double sum = 0.0;
      for (std::size_t i = 0; i < all.size(); ++i) {
        double strongest = 0.0;
        for (const BodySpot& spot : all[i]) {
          const double near =
              bell(spot.share, candidate.share, kSamePlace) * bell(spot.row, candidate.row, kSameRow_px);
          const double counts = std::min(spot.strength, kStrongest) * near;
          if (counts <= strongest) continue;
          strongest = counts;
          if (near > kSpotHolds) voted.spots[i] = spot;
        }
        sum += strongest;
      }
      const double worth = sum * (kAnywhere + bell(candidate.share, usual.share, usual.spread));
      worths.emplace_back(candidate.share, worth);
      if (worth <= most) continue;
      most = worth;
      voted.agreed = static_cast<double>(voted.spots.size()) / static_cast<double>(views.size());
      voted.strength = sum / static_cast<double>(views.size());
      best = std::move(voted);
    }
  }
  for (const auto& [share, worth] : worths) {
    if (std::abs(share - best.share) > kOtherSpot) best.rival = std::max(best.rival, worth / most);
  }
  return best;
}

/// A rear part much thinner than the front, as soft baits with a paddle have it.
bool hasThinTail(const std::vector<CutOut>& views) {
  double thin = 0.0, front = 0.0, widest = 0.0;
  for (const CutOut& view : views) {
    double most = 0.0;
    for (double share = 0.1; share < 0.95; share += 0.05) most = std::max(most, view.body.widthAt(share));
    widest += most;
    for (const double share : {0.15, 0.2, 0.25}) thin += view.body.widthAt(share) / 3.0;
    front += view.body.widthAt(0.6);
  }
  return thin < kThinTail * widest && front > kThickFront * widest;
}

constexpr Usual kHalfWay{MarkName::Tail, 0.495, 0.05, 0.25, 0.62};

/// As slim as a worm, with a spot half way, as those have that are marked where the hook leaves them.
bool isMarkedWorm(const std::vector<CutOut>& views) {
  std::vector<double> widths;
  for (const CutOut& view : views) {
    for (double share = 0.2; share < 0.85; share += 0.05) widths.push_back(view.body.widthAt(share));
  }
  return quantileOf(std::span(widths), 0.5) < kWorm * LaidOutBody::kLength &&
         vote(views, kHalfWay).strength > kPlainSpot;
}

std::vector<Usual> usualMarks(const std::vector<CutOut>& views) {
  if (hasThinTail(views) || isMarkedWorm(views))
    return {{MarkName::Nose, 0.965, 0.035, 0.72, 1.0}, kHalfWay, {MarkName::Tip, 0.06, 0.045, -0.08, 0.15}};
  return {{MarkName::Nose, 0.95, 0.035, 0.66, 1.0}, {MarkName::Tail, 0.075, 0.035, -0.02, 0.62}};
}

}  // namespace

std::vector<VotedMark> votedMarks(const std::vector<CutOut>& views) {
  std::vector<VotedMark> out;
  for (const Usual& usual : usualMarks(views)) out.push_back(vote(views, usual));
  return out;
}

double sureOf(const VotedMark& voted) {
  return voted.agreed * std::min(1.0, voted.strength / kPlainestSpot) *
         std::clamp(1.6 * (1.0 - voted.rival), 0.0, 1.0);
}

PixelPoint placeOf(const VotedMark& voted, const CutOut& view, std::size_t i) {
  const auto spot = voted.spots.find(i);
  if (spot != voted.spots.end()) return view.body.inPicture(spot->second.column, spot->second.row);
  const int column = LaidOutBody::columnAt(voted.share);
  return view.body.inPicture(column, view.body.centre[static_cast<std::size_t>(column)]);
}

}  // namespace fin
