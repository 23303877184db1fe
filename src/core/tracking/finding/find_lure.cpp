// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/find_lure.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/tracking/finding/known_body.h"
#include "core/tracking/finding/laid_out_body.h"
#include "core/tracking/finding/moving_thing.h"
#include "core/tracking/outline/still_outline.h"

namespace fin {
namespace {

constexpr std::size_t kViews = 8;      ///< that are cut out
constexpr double kUsualLong = 0.85;    ///< quantile of the lengths seen: longer ones are two things at once
constexpr double kOtherLength = 0.15;  ///< by which a view is another thing
constexpr double kSteep = 0.26;        ///< sine from which the lower end is the nose
constexpr double kPlainTaper = 0.25;   ///< from which taper is all it can be
constexpr double kTaperCounts = 0.6;   ///< beside how it falls, which a lure on a line need not keep to
constexpr double kStrongest = 60.0;    ///< more does not make a spot surer
constexpr double kSamePlace = 0.02;    ///< of the length
constexpr double kSameRow_px = 6.0;
constexpr double kThinTail = 0.42;  ///< of the greatest width
constexpr double kWorm = 0.09;      ///< of its length: thinner is no other bait
constexpr double kPlainSpot = 13.0;
constexpr double kPlainestSpot = 25.0;
constexpr double kThickFront = 0.7;
constexpr double kUsualIsSure = 0.3;
constexpr double kUnlikeIsSure = 0.5;  ///< of what it were if no look was known
constexpr double kSeenMostly = 0.7;    ///< of the frames
constexpr double kLeastLike = 0.3;     ///< correlation
constexpr double kPlainlyLike = 0.7;
constexpr double kFewestViews = 2;
constexpr double kAnywhere = 0.17;   ///< what a spot counts far from where it is usual
constexpr double kNoSpot = 8.0;      ///< strength of a spot, where it is usual, that is as good as none
constexpr double kOtherSpot = 0.06;  ///< of the length, from which a spot is another one
constexpr double kSpotHolds = 0.35;  ///< of a view's own strongest, for its place to be taken

double medianOf(std::vector<double> values) {
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

/// One frame in which the lure was cut out.
struct CutOut {
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

double bodyLength(const std::vector<CutOut>& views) {
  std::vector<double> lengths;
  for (const CutOut& view : views) lengths.push_back(view.body.length_px);
  return medianOf(std::move(lengths));
}

Result<CutOut> cutOut(FrameSource& source, const ThingSeen& seen) {
  const auto picture = source.frame(seen.frame);
  if (!picture) return tl::unexpected(picture.error());
  auto outline = outlineInStill(*picture, seen.outline);
  if (!outline) return tl::unexpected(outline.error());
  const auto axis = longAxisOf(*outline);
  if (!axis) return failure(ErrorCode::Lost, "the lure is too small in the picture");
  return CutOut{seen.frame, laidOut(*picture, *outline, *axis), std::move(*outline)};
}

Result<std::vector<CutOut>> viewsOf(FrameSource& source, const MovingThing& thing, const JobControl& job) {
  std::vector<CutOut> out;
  for (const ThingSeen* seen : bestSeen(thing)) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "looking for the lure was stopped");
    auto view = cutOut(source, *seen);
    if (view) {
      out.push_back(std::move(*view));
    } else if (const ErrorCode why = view.error().code; why != ErrorCode::Lost && why != ErrorCode::Damaged) {
      return tl::unexpected(view.error());
    }
  }
  if (out.empty()) return out;
  const double usual = bodyLength(out);
  std::erase_if(out,
                [usual](const CutOut& v) { return std::abs(v.body.length_px / usual - 1.0) > kOtherLength; });
  return out;
}

/// All views with the same end in front: each as most of the others have it.
void turnAlike(std::vector<CutOut>& views) {
  for (int round = 0; round < 2; ++round) {
    for (std::size_t i = 1; i < views.size(); ++i) {
      LaidOutBody turned = views[i].body.turnedRound();
      double forIt = 0.0;
      for (std::size_t k = 0; k < (round == 0 ? i : views.size()); ++k) {
        if (k != i) forIt += alikeness(views[k].body, turned) - alikeness(views[k].body, views[i].body);
      }
      if (forIt > 0.0) views[i].body = std::move(turned);
    }
  }
}

/// −1 … 1: how much thicker the front is than the rear. Baits are thick behind the nose and run out behind.
double taper(const std::vector<CutOut>& views) {
  double front = 0.0, rear = 0.0;
  for (const CutOut& view : views) {
    front += view.body.widthAt(0.9);
    rear += view.body.widthAt(0.1);
  }
  return (front - rear) / std::max({front, rear, 1.0});
}

/// −1 … 1: that the front is the nose.
double frontIsNose(const std::vector<CutOut>& views, const MovingThing& thing, const FindRequest& request) {
  const PixelPoint gone = (thing.seen.back().centre - thing.seen.back().behindMoved) -
                          (thing.seen.front().centre - thing.seen.front().behindMoved);
  const PixelPoint way = request.pull.value_or(gone);
  const bool falls = request.frontBy == FrontBy::Fall;
  double sum = 0.0;
  for (const CutOut& view : views) {
    const PixelPoint front = view.body.ahead;
    const double by = !falls                          ? front.x_px * way.x_px + front.y_px * way.y_px
                      : std::abs(front.y_px) > kSteep ? front.y_px
                                                      : front.x_px * gone.x_px;
    sum += by > 0.0 ? 1.0 : -1.0;
  }
  const double attitude = sum / static_cast<double>(views.size());
  if (!falls) return attitude;
  return (1.0 - kTaperCounts) * attitude + kTaperCounts * std::clamp(taper(views) / kPlainTaper, -1.0, 1.0);
}

/// A mark's place: in each view that shows the spot, else where it is usual.
struct Voted {
  double share = 0.0;
  double strength = 0.0;                  ///< mean over the views
  double agreed = 0.0;                    ///< share of the views that show a spot there
  double rival = 0.0;                     ///< the strongest other spot over it
  std::map<std::size_t, BodySpot> spots;  ///< by view
};

Voted vote(const std::vector<CutOut>& views, const Usual& usual) {
  std::vector<std::vector<BodySpot>> all;
  for (const CutOut& view : views) all.push_back(spotsOn(view.body, usual.from, usual.to, 8));
  Voted best{.share = usual.share};
  double most = kNoSpot * static_cast<double>(views.size());
  std::vector<std::pair<double, double>> worths;  // by share
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
  return medianOf(std::move(widths)) < kWorm * LaidOutBody::kLength &&
         vote(views, kHalfWay).strength > kPlainSpot;
}

std::vector<Usual> usualMarks(const std::vector<CutOut>& views) {
  if (hasThinTail(views) || isMarkedWorm(views))
    return {{MarkName::Nose, 0.965, 0.035, 0.72, 1.0}, kHalfWay, {MarkName::Tip, 0.09, 0.05, -0.02, 0.22}};
  return {{MarkName::Nose, 0.95, 0.035, 0.66, 1.0}, {MarkName::Tail, 0.075, 0.035, -0.02, 0.62}};
}

/// How far a spot may be taken for the mark: in each view, plain, and no other stands out half as much again.
double sureOf(const Voted& voted) {
  return voted.agreed * std::min(1.0, voted.strength / kPlainestSpot) *
         std::clamp(1.6 * (1.0 - voted.rival), 0.0, 1.0);
}

PixelPoint placeOf(const Voted& voted, const CutOut& view, std::size_t i) {
  const auto spot = voted.spots.find(i);
  if (spot != voted.spots.end()) return view.body.inPicture(spot->second.column, spot->second.row);
  const int column = LaidOutBody::columnAt(voted.share);
  return view.body.inPicture(column, view.body.centre[static_cast<std::size_t>(column)]);
}

FoundLure lureIn(const CutOut& view) {
  FoundLure out;
  out.outline = {view.frame, view.outline.contours.front()};
  return out;
}

/// Marks where spots are that most views show, else where they are usual.
FoundLure markedBySpots(std::vector<CutOut>& views, const MovingThing& thing, const FindRequest& request) {
  turnAlike(views);
  const double front = frontIsNose(views, thing, request);
  if (front < 0.0) {
    for (CutOut& view : views) view.body = view.body.turnedRound();
  }
  const std::vector<Usual> usual = usualMarks(views);
  std::vector<Voted> voted;
  for (const Usual& mark : usual) voted.push_back(vote(views, mark));
  std::size_t best = 0;
  double most = -1.0;
  for (std::size_t i = 0; i < views.size(); ++i) {
    double sum = 0.0;
    for (const Voted& v : voted) {
      const auto spot = v.spots.find(i);
      if (spot != v.spots.end()) sum += std::min(spot->second.strength, kStrongest);
    }
    if (sum <= most) continue;
    most = sum;
    best = i;
  }
  const CutOut& view = views[best];
  FoundLure out = lureIn(view);
  for (std::size_t m = 0; m < usual.size(); ++m) {
    const bool spotted = voted[m].spots.contains(best);
    out.marks.push_back({{usual[m].name, view.frame, placeOf(voted[m], view, best)},
                         std::abs(front) * (spotted ? sureOf(voted[m]) : kUsualIsSure)});
  }
  return out;
}

/// 0 … 1
double sureBy(double likeness) {
  return std::clamp((likeness - kLeastLike) / (kPlainlyLike - kLeastLike), 0.0, 1.0);
}

/// Marks on the details that a known look has, in the view that shows them best; none where nothing here
/// looks like it.
std::optional<FoundLure> markedByLook(const std::vector<CutOut>& views, const LureLook& look) {
  std::optional<KnownBody> best;
  const CutOut* of = nullptr;
  const auto worth = [](const KnownBody& body) {
    double sum = *body.likeness;
    for (const KnownPlace& place : body.places) sum += place.likeness;
    return sum;
  };
  for (const CutOut& view : views) {
    KnownBody body = recognised(look, view.body);
    if (best && worth(body) <= worth(*best)) continue;
    best = std::move(body);
    of = &view;
  }
  if (*best->likeness < kLeastLike) return std::nullopt;
  FoundLure out = lureIn(*of);
  for (std::size_t m = 0; m < look.marks.size(); ++m) {
    const KnownPlace& place = best->places[m];
    out.marks.push_back({{look.marks[m].name, of->frame, best->body.inPicture(place.column, place.row)},
                         sureBy(*best->likeness) * sureBy(place.likeness)});
  }
  return out;
}

}  // namespace

Result<FoundLure> findLure(FrameSource& source, const FindRequest& request, const JobControl& job) {
  const auto thing = findMovingThing(source, {request.window, request.cameraMoves}, job);
  if (!thing) return tl::unexpected(thing.error());
  auto views = viewsOf(source, *thing, job);
  if (!views) return tl::unexpected(views.error());
  if (static_cast<double>(views->size()) < kFewestViews)
    return failure(ErrorCode::Lost, "what moves here cannot be cut out of what lies behind it");
  std::optional<FoundLure> out;
  if (request.looksLike) out = markedByLook(*views, *request.looksLike);
  const bool unlike = request.looksLike && !out;
  if (!out) out = markedBySpots(*views, *thing, request);
  const double seen = static_cast<double>(thing->seen.size()) / static_cast<double>(thing->lookedAt);
  const double whole =
      std::min(1.0, 2.0 * thing->lead) * std::min(1.0, seen / kSeenMostly) * (unlike ? kUnlikeIsSure : 1.0);
  for (FoundMark& mark : out->marks) mark.sure *= whole;
  out->body = Pixels(bodyLength(*views));
  return std::move(*out);
}

Result<std::shared_ptr<const LureLook>> lookOf(FrameSource& source, const FindRequest& request,
                                               const std::vector<MarkSeed>& marks, const JobControl& job) {
  const auto at = [&](MarkName name) {
    return std::find_if(marks.begin(), marks.end(), [name](const MarkSeed& m) { return m.name == name; });
  };
  const auto nose = at(MarkName::Nose), tail = at(MarkName::Tail);
  if (nose == marks.end() || tail == marks.end() || nose->frame != tail->frame)
    return failure(ErrorCode::BadRequest, "the pass that it looks like has no nose and tail in one frame",
                   "looks_like");
  const auto thing = findMovingThing(source, {request.window, request.cameraMoves, nose->frame}, job);
  if (!thing) return tl::unexpected(thing.error());
  const auto seen = std::find_if(thing->seen.begin(), thing->seen.end(),
                                 [&](const ThingSeen& s) { return s.frame == nose->frame; });
  if (seen == thing->seen.end())
    return failure(ErrorCode::Lost,
                   "the lure of the pass that it looks like does not stand out where it is marked");
  const auto picture = source.frame(nose->frame);
  if (!picture) return tl::unexpected(picture.error());
  const auto outline = outlineInStill(*picture, seen->outline);
  if (!outline) return tl::unexpected(outline.error());
  auto axis = longAxisOf(*outline);
  const auto views = viewsOf(source, *thing, job);
  if (!views) return tl::unexpected(views.error());
  if (!axis || views->empty()) return failure(ErrorCode::Lost, "the lure is too small in the picture");
  const PixelPoint ahead = nose->at - tail->at;
  if (axis->ahead.x_px * ahead.x_px + axis->ahead.y_px * ahead.y_px < 0.0) *axis = axis->turnedRound();
  // What is missing of it in this one frame is its thin end.
  const double missing = std::max(0.0, bodyLength(*views) - axis->length_px);
  axis->rear_px -= missing;
  axis->length_px += missing;
  auto out = std::make_shared<LureLook>();
  out->body = laidOut(*picture, *outline, *axis);
  for (const MarkSeed& mark : marks) {
    if (mark.frame != nose->frame) continue;
    const auto [column, row] = out->body.onBody(mark.at);
    out->marks.push_back({mark.name, column, row});
  }
  return out;
}

}  // namespace fin
