// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/find_lure.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/tracking/finding/laid_out_body.h"
#include "core/tracking/finding/moving_thing.h"
#include "core/tracking/outline/still_outline.h"

namespace fin {
namespace {

constexpr std::size_t kViews = 8;      ///< that are cut out
constexpr double kUsualLong = 0.85;    ///< quantile of the lengths seen: longer ones are two things at once
constexpr double kOtherLength = 0.15;  ///< by which a view is another thing
constexpr double kSteep = 0.26;        ///< sine from which the lower end is the nose
constexpr double kStrongest = 60.0;    ///< more does not make a spot surer
constexpr double kSamePlace = 0.02;    ///< of the length
constexpr double kSameRow_px = 6.0;
constexpr double kThinTail = 0.45;  ///< of the greatest width
constexpr double kThickFront = 0.7;
constexpr double kFewestViews = 2;
constexpr double kOtherSpot = 0.06;  ///< of the length, from which a spot is another one
constexpr double kSpotHolds = 0.35;  ///< of a view's own strongest, for its place to be taken

/// One frame in which the lure was cut out.
struct View {
  std::size_t frame = 0;
  LaidOutBody body;
  OutlineSample outline;
};

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

/// The frames in which it is nearly as long as it gets, the slim ones first.
std::vector<const ThingSeen*> bestSeen(const MovingThing& thing) {
  std::vector<const ThingSeen*> out;
  for (const ThingSeen& seen : thing.seen) {
    if (!seen.atRim) out.push_back(&seen);
  }
  if (out.empty()) return out;
  std::vector<double> lengths;
  for (const ThingSeen* seen : out) lengths.push_back(seen->length_px);
  std::sort(lengths.begin(), lengths.end());
  const double usual =
      lengths[static_cast<std::size_t>(kUsualLong * static_cast<double>(lengths.size() - 1))];
  const auto fitness = [usual](const ThingSeen* seen) {
    return std::abs(seen->length_px - usual) / usual + 0.3 * seen->width_px / seen->length_px;
  };
  std::sort(out.begin(), out.end(),
            [&](const ThingSeen* a, const ThingSeen* b) { return fitness(a) < fitness(b); });
  out.resize(std::min(out.size(), kViews));
  return out;
}

Result<std::vector<View>> viewsOf(FrameSource& source, const MovingThing& thing, const JobControl& job) {
  std::vector<View> out;
  for (const ThingSeen* seen : bestSeen(thing)) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "looking for the lure was stopped");
    const auto picture = source.frame(seen->frame);
    if (!picture && picture.error().code == ErrorCode::Damaged) continue;
    if (!picture) return tl::unexpected(picture.error());
    auto outline = outlineInStill(*picture, seen->outline);
    if (!outline) continue;
    if (auto body = laidOut(*picture, *outline))
      out.push_back({seen->frame, std::move(*body), std::move(*outline)});
  }
  if (out.empty()) return out;
  std::vector<double> lengths;
  for (const View& view : out) lengths.push_back(view.body.length_px);
  std::nth_element(lengths.begin(), lengths.begin() + static_cast<std::ptrdiff_t>(lengths.size() / 2),
                   lengths.end());
  const double usual = lengths[lengths.size() / 2];
  std::erase_if(out,
                [usual](const View& v) { return std::abs(v.body.length_px / usual - 1.0) > kOtherLength; });
  return out;
}

/// All views with the same end in front as the first one.
void turnAlike(std::vector<View>& views) {
  for (std::size_t i = 1; i < views.size(); ++i) {
    LaidOutBody round = views[i].body.turnedRound();
    if (alikeness(views[0].body, round) > alikeness(views[0].body, views[i].body))
      views[i].body = std::move(round);
  }
}

/// −1 … 1: that the front is the nose, by each view.
double frontIsNose(const std::vector<View>& views, const MovingThing& thing, const FindRequest& request) {
  const PixelPoint gone = thing.seen.back().centre - thing.seen.front().centre;
  const PixelPoint way = request.pull.value_or(gone);
  const auto ahead = [](PixelPoint a, PixelPoint b) { return a.x_px * b.x_px + a.y_px * b.y_px; };
  double sum = 0.0;
  for (const View& view : views) {
    const PixelPoint front = view.body.ahead;
    const bool steep = request.frontBy == FrontBy::Fall && std::abs(front.y_px) > kSteep;
    const double by = steep                              ? front.y_px
                      : request.frontBy == FrontBy::Fall ? front.x_px * gone.x_px
                                                         : ahead(front, way);
    sum += by > 0.0 ? 1.0 : -1.0;
  }
  return sum / static_cast<double>(views.size());
}

/// A mark's place: in each view that shows the spot, else where it is usual.
struct Voted {
  double share = 0.0;
  double agreed = 0.0;                    ///< share of the views that show a spot there
  double rival = 0.0;                     ///< the strongest other spot over it
  std::map<std::size_t, BodySpot> spots;  ///< by view
};

Voted vote(const std::vector<View>& views, const Usual& usual) {
  std::vector<std::vector<BodySpot>> all;
  for (const View& view : views) all.push_back(spotsOn(view.body, usual.from, usual.to, 8));
  Voted best{.share = usual.share};
  double most = 0.0;
  double ofBest = 0.0;
  std::vector<std::pair<double, double>> strengths;  // share, sum over the views
  for (const auto& candidates : all) {
    for (const BodySpot& candidate : candidates) {
      Voted voted{.share = candidate.share};
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
      strengths.emplace_back(candidate.share, sum);
      const double worth = sum * (0.1 + bell(candidate.share, usual.share, usual.spread));
      if (worth <= most) continue;
      most = worth;
      ofBest = sum;
      voted.agreed = static_cast<double>(voted.spots.size()) / static_cast<double>(views.size());
      best = std::move(voted);
    }
  }
  for (const auto& [share, sum] : strengths) {
    if (std::abs(share - best.share) > kOtherSpot) best.rival = std::max(best.rival, sum / ofBest);
  }
  return best;
}

/// A rear part much thinner than the front, as soft baits with a paddle have it.
bool hasThinTail(const std::vector<View>& views) {
  double thin = 0.0, front = 0.0, widest = 0.0;
  for (const View& view : views) {
    double most = 0.0;
    for (double share = 0.1; share < 0.95; share += 0.05) most = std::max(most, view.body.widthAt(share));
    widest += most;
    for (const double share : {0.18, 0.22, 0.27, 0.32}) thin += 0.25 * view.body.widthAt(share);
    front += view.body.widthAt(0.6);
  }
  return thin < kThinTail * widest && front > kThickFront * widest;
}

std::vector<Usual> usualMarks(bool softTail) {
  if (softTail)
    return {{MarkName::Nose, 0.96, 0.035, 0.72, 1.0},
            {MarkName::Tail, 0.48, 0.05, 0.25, 0.62},
            {MarkName::Tip, 0.09, 0.05, -0.02, 0.22}};
  return {{MarkName::Nose, 0.93, 0.035, 0.66, 1.0}, {MarkName::Tail, 0.09, 0.035, -0.02, 0.62}};
}

/// 1 where no other spot stands out nearly as much, 0 where one does half as much again.
double sureAgainst(double rival) {
  return std::clamp(2.0 - 4.0 / 3.0 * rival, 0.0, 1.0);
}

PixelPoint placeOf(const Voted& voted, const View& view, std::size_t i) {
  const auto spot = voted.spots.find(i);
  if (spot != voted.spots.end()) return view.body.inPicture(spot->second.column, spot->second.row);
  const int column = LaidOutBody::columnAt(voted.share);
  return view.body.inPicture(column, view.body.centre[static_cast<std::size_t>(column)]);
}

}  // namespace

Result<FoundLure> findLure(FrameSource& source, const FindRequest& request, const JobControl& job) {
  const auto thing = findMovingThing(source, request.window, job);
  if (!thing) return tl::unexpected(thing.error());
  auto views = viewsOf(source, *thing, job);
  if (!views) return tl::unexpected(views.error());
  if (static_cast<double>(views->size()) < kFewestViews)
    return failure(ErrorCode::Lost, "what moves here cannot be cut out of what lies behind it");
  turnAlike(*views);
  const double front = frontIsNose(*views, *thing, request);
  if (front < 0.0) {
    for (View& view : *views) view.body = view.body.turnedRound();
  }
  const bool soft = hasThinTail(*views);
  const std::vector<Usual> usual = usualMarks(soft);
  std::vector<Voted> voted;
  for (const Usual& mark : usual) voted.push_back(vote(*views, mark));
  std::size_t best = 0;
  double most = -1.0;
  for (std::size_t i = 0; i < views->size(); ++i) {
    double sum = 0.0;
    for (const Voted& v : voted) {
      const auto spot = v.spots.find(i);
      if (spot != v.spots.end()) sum += std::min(spot->second.strength, kStrongest);
    }
    if (sum <= most) continue;
    most = sum;
    best = i;
  }
  const View& view = (*views)[best];
  const double seen = static_cast<double>(thing->seen.size()) / static_cast<double>(thing->lookedAt);
  const double whole = std::abs(front) * std::min(1.0, 2.0 * thing->lead) * std::min(1.0, seen / 0.7);
  FoundLure out;
  for (std::size_t m = 0; m < usual.size(); ++m) {
    const bool spotted = voted[m].spots.contains(best);
    out.marks.push_back({{usual[m].name, view.frame, placeOf(voted[m], view, best)},
                         whole * (spotted ? voted[m].agreed * sureAgainst(voted[m].rival) : 0.3)});
  }
  out.outline = {view.frame, view.outline.contours.front()};
  return out;
}

}  // namespace fin
