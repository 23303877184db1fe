// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/find_lure.h"

#include <algorithm>
#include <cmath>

#include "core/tracking/finding/known_body.h"
#include "core/tracking/finding/moving_thing.h"
#include "core/tracking/finding/voted_marks.h"
#include "core/tracking/outline/still_outline.h"

namespace fin {
namespace {

constexpr double kSteep = 0.26;       ///< sine from which the lower end is the nose
constexpr double kPlainTaper = 0.25;  ///< from which taper is all it can be
constexpr double kTaperCounts = 0.6;  ///< beside how it falls, which a lure on a line need not keep to
constexpr double kPlain = 60.0;       ///< strength: more does not make a view better
constexpr double kUsualIsSure = 0.3;
constexpr double kUnlikeIsSure = 0.5;  ///< of what it were if no look was known
constexpr double kSeenMostly = 0.7;    ///< of the frames
constexpr double kLeastLike = 0.3;     ///< correlation
constexpr double kPlainlyLike = 0.7;
constexpr std::size_t kFewestViews = 2;

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
  const std::vector<VotedMark> voted = votedMarks(views);
  std::size_t best = 0;
  double most = -1.0;
  for (std::size_t i = 0; i < views.size(); ++i) {
    double sum = 0.0;
    for (const VotedMark& v : voted) {
      const auto spot = v.spots.find(i);
      if (spot != v.spots.end()) sum += std::min(spot->second.strength, kPlain);
    }
    if (sum <= most) continue;
    most = sum;
    best = i;
  }
  const CutOut& view = views[best];
  FoundLure out = lureIn(view);
  for (const VotedMark& mark : voted) {
    const bool spotted = mark.spots.contains(best);
    out.marks.push_back({{mark.name, view.frame, placeOf(mark, view, best)},
                         std::abs(front) * (spotted ? sureOf(mark) : kUsualIsSure)});
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
  auto views = cutOutsOf(source, *thing, job);
  if (!views) return tl::unexpected(views.error());
  if (views->size() < kFewestViews)
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
  const auto views = cutOutsOf(source, *thing, job);
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
