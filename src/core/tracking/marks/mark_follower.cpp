// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/mark_follower.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/tracking/marks/verification.h"

namespace fin {
namespace {

constexpr double kPatchOfBody = 0.16;
constexpr int kSmallestPatch_px = 7;
constexpr int kLargestPatch_px = 14;
constexpr int kPatchAlone_px = 9;
constexpr double kLureReach = 1.6;  ///< body lengths from a mark that any part of the lure may lie
constexpr double kLureReachAlone_px = 100.0;
constexpr double kDetailShare = 0.45;  ///< of a likeness
constexpr double kWideAtLeast = 0.1;   ///< of a place that only the detail proposes
constexpr double kOnAnother_px = 4.0;
constexpr double kDetailMissing = 0.25;
constexpr double kDoubtfulQuality = 0.45;
constexpr double kSamePlace_px = 2.5;
constexpr double kReachOfRadius = 1.0;  ///< search reach while all goes well, in patch radii
constexpr double kFirstReach = 2.0;     ///< times as far while nothing is known of where a mark goes
constexpr double kReachOfMove = 0.5;    ///< and of the last move from frame to frame
constexpr int kFarthestReach_px = 36;
constexpr double kLongestCoast_frames = 12.0;
constexpr int kNear_px = 4;                    ///< as far as an even move goes astray
constexpr double kNoNeedToLookFarther = 0.92;  ///< likeness of a place near where a mark was expected
constexpr double kLostAfter_frames = 3.5;
constexpr double kFoundAgain = 0.75;  ///< likeness that a lost mark has to show
constexpr double kSure = 0.9;         ///< quality
constexpr double kOtherColour = 8.0;  ///< steps of the colour differences
constexpr double kEndOn = 0.6;  ///< of the body's length: it turns towards the camera, and its ends hide
constexpr double kLongerThanSeen = 1.25;  ///< a body a little nearer to the camera than before
constexpr double kStraightened = 1.5;     ///< times as long as it was placed: a soft tail that was bent
constexpr int kDirections = 12;           ///< about its partner in which a lost end is looked for
constexpr double kFarthestBent_rad = 1.2;
constexpr double kTurnWorthALook_rad = 0.06;
constexpr double kLearnBelow = 0.86;  ///< likeness under which a new look is worth keeping
constexpr double kLearnFrom = 0.62;   ///< and above which it is safe to
constexpr double kLearnQuality = 0.5;
constexpr double kStillItself = 0.1;     ///< likeness of a given look
constexpr double kFitsToTellSize = 0.7;  ///< likeness of a given look
constexpr double kSizeStep = 1.04;
constexpr double kSizeMemory = 0.1;  ///< of a step a frame: a lure does not grow faster
constexpr double kMostGrowth = 4.0;

/// Likeness by the wider look and by the detail, as one. A detail may be hidden for a while, so that it
/// speaks for a place and not against it.
double joint(double wide, double detail) {
  return std::max(wide, (1.0 - kDetailShare) * wide + kDetailShare * detail);
}

double directionOf(PixelPoint v) {
  return std::atan2(v.y_px, v.x_px);
}

/// The patch that stands for a mark, by the length of the body.
int patchRadiusFor(double body_px) {
  if (body_px <= 0.0) return kPatchAlone_px;
  return std::clamp(static_cast<int>(std::lround(kPatchOfBody * body_px)), kSmallestPatch_px,
                    kLargestPatch_px);
}

bool isSeenFromAhead(MarkName name) {
  return name == MarkName::Back || name == MarkName::Belly;
}

bool inside(const Picture& picture, PixelPoint p) {
  return p.x_px >= 0.0 && p.y_px >= 0.0 && p.x_px <= picture.width() - 1.0 &&
         p.y_px <= picture.height() - 1.0;
}

}  // namespace

/// What one step finds out about one mark.
struct MarkFollower::Looked {
  double angle_rad = 0.0;
  bool lost = false;  ///< not seen for some frames
  MarkChoices choices;
  std::optional<std::size_t> chosen;
  PixelPoint at;
  double likeness = -1.0;
  double quality = 0.0;
  bool doubtful = false;  ///< it hides, or what stands out at it was not seen there
};

MarkFollower::MarkFollower(double body_px, double frameSpacing_s, double scale)
    : radius_px_(patchRadiusFor(body_px)),
      spacing_s_(frameSpacing_s),
      scale_(scale),
      scene_(body_px > 0.0 ? kLureReach * body_px : kLureReachAlone_px) {}

void MarkFollower::give(const Picture& picture, double time_s, std::span<const MarkSeed> seeds) {
  for (const MarkSeed& seed : seeds) motion_.place(seed.name, time_s, seed.at);
  for (const MarkSeed& seed : seeds) {
    const auto partner = motion_.partnerOf(seed.name);
    if (!partner || !motion_.knows(*partner)) continue;
    const double apart_px = *motion_.apart_px(seed.name, *partner);
    rememberLength(seed.name, apart_px);
    given_px_[seed.name] = std::max(given_px_[seed.name], apart_px);
  }
  for (const MarkSeed& seed : seeds) {
    const PatchPose pose{seed.at, angleAt(seed.name, seed.at, time_s), scale_};
    details_[seed.name].addGiven(picture, pose, radius_px_);
    const auto known = appearances_.find(seed.name);
    if (known == appearances_.end()) {
      appearances_.emplace(seed.name, MarkAppearance(picture.grey(), pose, radius_px_));
    } else {
      known->second.addGiven(picture.grey(), pose);
    }
  }
}

std::optional<MarkName> MarkFollower::rigidPartnerOf(MarkName name) const {
  const auto partner = motion_.partnerOf(name);
  return partner && motion_.isRigidPair(name, *partner) ? partner : std::nullopt;
}

/// An end of a body seen from ahead: it goes to and fro beside the rest of it.
bool MarkFollower::swingsPast(MarkName name) const {
  return motion_.partnerOf(name) != fin::partnerOf(name);
}

void MarkFollower::rememberLength(MarkName end, double apart_px) {
  longest_px_[end] = std::max(longest_px_[end], apart_px);
  if (const auto partner = rigidPartnerOf(end))
    longest_px_[*partner] = std::max(longest_px_[*partner], apart_px);
}

MarkFollower::Followed MarkFollower::placed(const Picture& picture, double time_s,
                                            const MarkSeed& seed) const {
  const double angle = angleAt(seed.name, seed.at, time_s);
  const auto detail = details_.at(seed.name).settle(picture, {seed.at, angle, scale_});
  return {{true, detail.value_or(seed.at), 1.0}, detail.has_value(), angle, scale_};
}

double MarkFollower::angleAt(MarkName name, PixelPoint at, double time_s) const {
  const auto partner = motion_.partnerOf(name);
  if (!partner || !motion_.knows(*partner)) return 0.0;
  if (swingsPast(name))  // it turns with the body, however far it stands beside it
    return directionOf(motion_.predict(MarkName::Back, time_s) - motion_.predict(MarkName::Belly, time_s));
  return directionOf(at - motion_.predict(*partner, time_s));
}

PixelPoint MarkFollower::expected(MarkName name, double time_s) const {
  const double most = kLongestCoast_frames * spacing_s_;
  const double seen = motion_.lastSeen_s(name);
  return motion_.predict(name, std::clamp(time_s, seen - most, seen + most));
}

MarkFollower::Looked MarkFollower::look(const Picture& picture, MarkName name, double time_s,
                                        const Hidden& hidden) const {
  Looked looked;
  looked.choices.expected = expected(name, time_s);
  if (!inside(picture, looked.choices.expected)) return looked;

  looked.angle_rad = angleAt(name, looked.choices.expected, time_s);
  const double frames = std::max(std::abs(time_s - motion_.lastSeen_s(name)) / spacing_s_, 1.0);
  const double moved_px = length(motion_.velocity(name)).value() * spacing_s_;
  const double unknown = motion_.moves(name) ? 1.0 : kFirstReach;
  const double reach =
      (unknown * kReachOfRadius * radius_px_ * scale_ + kReachOfMove * moved_px) * std::sqrt(frames);
  looked.choices.uncertainty_px = 0.4 * reach;
  looked.lost = frames > kLostAfter_frames;
  const int steps = std::min(static_cast<int>(std::ceil(reach)), kFarthestReach_px);
  auto& candidates = looked.choices.candidates;
  const PatchPose pose{looked.choices.expected, looked.angle_rad, scale_};
  const auto likely = [](const auto& c) { return c.score > kNoNeedToLookFarther; };
  if (!looked.lost && motion_.moves(name) && steps > kNear_px)
    candidates = lookAt(picture, name, pose, time_s, kNear_px);
  if (std::none_of(candidates.begin(), candidates.end(), likely))
    candidates = lookAt(picture, name, pose, time_s, steps);
  if (looked.lost) {
    if (const auto partner = seenPartner(name, time_s))
      lookAround(picture, name, *partner, time_s, candidates);
    const bool rigid = rigidPartnerOf(name).has_value();  // a soft tip's colour mixes with the water's
    std::erase_if(candidates, [&](const auto& c) {
      return c.score < kFoundAgain || (rigid && details_.at(name).colourAway(picture, c.at) > kOtherColour);
    });
  }
  std::erase_if(candidates, [&](const auto& c) {
    return hidden(c.at) || tooFarFromPartner(name, c.at, time_s) ||
           scene_.stoodThere(picture, c.at, static_cast<int>(std::lround(radius_px_ * scale_)));
  });
  return looked;
}

std::vector<MarkAppearance::Candidate> MarkFollower::lookAt(const Picture& picture, MarkName name,
                                                            const PatchPose& pose, double time_s,
                                                            int reach_px) const {
  auto candidates = appearances_.at(name).candidates(picture.grey(), pose, reach_px);
  weighByDetail(picture, name, pose, time_s, reach_px, candidates);
  return candidates;
}

/// An end that turned away while the other was seen may come back anywhere about it; a soft tail's tip,
/// behind the body only.
void MarkFollower::lookAround(const Picture& picture, MarkName name, PixelPoint partner, double time_s,
                              std::vector<MarkAppearance::Candidate>& candidates) const {
  if (swingsPast(name)) {
    candidates =
        lookAt(picture, name, {partner, angleAt(name, partner, time_s), scale_}, time_s, kFarthestReach_px);
    return;
  }
  const double away_px = longest_px_.at(name);
  std::optional<double> behind_rad;
  if (const auto end = motion_.partnerOf(name); end && !rigidPartnerOf(name))
    behind_rad = angleAt(*end, partner, time_s);
  for (int i = 0; i < kDirections; ++i) {
    const double angle = 2.0 * std::numbers::pi * i / kDirections;
    if (behind_rad &&
        std::abs(std::remainder(angle - *behind_rad, 2.0 * std::numbers::pi)) > kFarthestBent_rad)
      continue;
    const PatchPose pose{partner + PixelPoint{std::cos(angle), std::sin(angle)} * away_px, angle, scale_};
    if (!inside(picture, pose.centre)) continue;
    const int reach =
        std::min(static_cast<int>(std::numbers::pi * away_px / kDirections) + 1, kFarthestReach_px);
    const auto there = lookAt(picture, name, pose, time_s, reach);
    candidates.insert(candidates.end(), there.begin(), there.end());
  }
}

std::optional<PixelPoint> MarkFollower::seenPartner(MarkName name, double time_s) const {
  const auto partner = motion_.partnerOf(name);
  if (!partner || !motion_.knows(*partner)) return std::nullopt;
  if (std::abs(time_s - motion_.lastSeen_s(*partner)) > 1.5 * spacing_s_) return std::nullopt;
  return motion_.predict(*partner, time_s);
}

bool MarkFollower::tooFarFromPartner(MarkName name, PixelPoint at, double time_s) const {
  const auto partner = seenPartner(name, time_s);
  if (!partner || swingsPast(name)) return false;
  const double longest_px = kLongerThanSeen * longest_px_.at(name);
  // A soft tail may have been bent where it was placed; following must not draw it out little by little.
  const double most_px =
      rigidPartnerOf(name) ? longest_px : std::min(longest_px, kStraightened * given_px_.at(name));
  return length(at - *partner).value() > most_px;
}

bool MarkFollower::liesOnAnother(MarkName name, PixelPoint at, double time_s) const {
  return std::any_of(appearances_.begin(), appearances_.end(), [&](const auto& other) {
    return other.first != name && length(expected(other.first, time_s) - at).value() < kOnAnother_px;
  });
}

/// What stands out at the mark proposes places of its own, and has its say on all of them.
void MarkFollower::weighByDetail(const Picture& picture, MarkName name, const PatchPose& pose, double time_s,
                                 int reach_px, std::vector<MarkAppearance::Candidate>& candidates) const {
  const MarkDetail& detail = details_.at(name);
  if (!detail.standsOut()) return;
  for (const PixelPoint at : detail.places(picture, pose, reach_px)) {
    if (liesOnAnother(name, at, time_s)) continue;
    const bool known = std::any_of(candidates.begin(), candidates.end(),
                                   [at](const auto& c) { return length(c.at - at).value() < kSamePlace_px; });
    if (known) continue;
    const auto judged = appearances_.at(name).judged(picture.grey(), pose.movedTo(at));
    if (judged.score > kWideAtLeast) candidates.push_back(judged);
  }
  for (auto& c : candidates) c.score = joint(c.score, detail.likenessAt(picture, pose.movedTo(c.at)));
}

std::map<MarkName, MarkFollower::Followed> MarkFollower::step(const Picture& picture, double time_s,
                                                              std::span<const MarkSeed> given,
                                                              const Hidden& hidden) {
  std::map<MarkName, Looked> looked;
  for (const auto& [name, appearance] : appearances_) {
    const bool isGiven =
        std::any_of(given.begin(), given.end(), [n = name](const MarkSeed& s) { return s.name == n; });
    if (!isGiven) looked.emplace(name, look(picture, name, time_s, hidden));
  }
  for (auto& [name, mine] : looked) {
    const auto partner = motion_.partnerOf(name);
    const auto other = partner ? looked.find(*partner) : looked.end();
    if (other == looked.end() || !motion_.isRigidPair(name, *partner)) {
      mine.chosen = chooseOne(mine.choices);
    } else if (mine.lost || other->second.lost) {
      mine.chosen = chooseOne(mine.choices);
      if (mine.lost && mine.chosen)
        mine.angle_rad = angleAt(name, mine.choices.candidates[*mine.chosen].at, time_s);
    } else if (name < *partner) {
      const PairChoice pair =
          choosePair(mine.choices, other->second.choices, *motion_.apart_px(name, *partner));
      mine.chosen = pair.first;
      other->second.chosen = pair.second;
    }
  }
  settle(picture, looked);
  verify(picture, looked);
  learn(picture, looked);
  grow(picture, looked);

  std::map<MarkName, Followed> out;
  for (const auto& [name, mine] : looked) {
    const bool seen = mine.quality >= kSeenFrom;
    if (seen) motion_.place(name, time_s, mine.at);
    const auto detail =
        seen ? details_.at(name).settle(picture, {mine.at, mine.angle_rad, scale_}) : std::nullopt;
    const double quality = mine.doubtful ? std::min(mine.quality, kDoubtfulQuality) : mine.quality;
    out[name] = {
        {seen, detail.value_or(mine.at), seen ? quality : 0.0}, detail.has_value(), mine.angle_rad, scale_};
  }
  std::vector<PixelPoint> lure;
  for (const auto& [name, found] : out) {
    if (found.sample.seen) lure.push_back(found.sample.at);
    const auto partner = motion_.partnerOf(name);
    const auto other = partner ? out.find(*partner) : out.end();
    if (other != out.end() && std::min(found.sample.quality, other->second.sample.quality) >= kSure)
      rememberLength(name, length(found.sample.at - other->second.sample.at).value());
  }
  if (!lure.empty()) scene_.remember(picture, std::move(lure));
  return out;
}

/// Sub-pixel places; once more at the true angle where the body turned otherwise than expected.
void MarkFollower::settle(const Picture& picture, std::map<MarkName, Looked>& looked) {
  const auto refineAll = [&] {
    for (auto& [name, mine] : looked) {
      if (!mine.chosen) continue;
      const auto& candidate = mine.choices.candidates[*mine.chosen];
      const PixelPoint start = mine.likeness > 0.0 ? mine.at : candidate.at;
      const auto found =
          appearances_.at(name).refine(picture.grey(), {start, mine.angle_rad, scale_}, candidate.look);
      if (found.score > mine.likeness) {
        mine.at = found.at;
        mine.likeness = found.score;
      }
      if (!inside(picture, mine.at)) mine.likeness = -1.0;
    }
  };
  refineAll();
  bool turned = false;
  for (auto& [name, mine] : looked) {
    const auto partner = motion_.partnerOf(name);
    const auto other = partner ? looked.find(*partner) : looked.end();
    if (other == looked.end() || mine.likeness < 0.0 || other->second.likeness < 0.0) continue;
    const double angle = directionOf(mine.at - other->second.at);
    turned |= std::abs(std::remainder(angle - mine.angle_rad, 2.0 * std::numbers::pi)) > kTurnWorthALook_rad;
    mine.angle_rad = angle;
  }
  if (turned) refineAll();
}

void MarkFollower::verify(const Picture& picture, std::map<MarkName, Looked>& looked) {
  for (auto& [name, mine] : looked) {
    const auto partner = motion_.partnerOf(name);
    const auto other = partner ? looked.find(*partner) : looked.end();
    double stretch = 0.0;
    const bool bothFollowed = other != looked.end() && !mine.lost && !other->second.lost;
    if (bothFollowed && motion_.isRigidPair(name, *partner) && other->second.likeness > 0.0) {
      const double before = *motion_.apart_px(name, *partner);
      const double now = length(mine.at - other->second.at).value();
      stretch = (now - before) / std::max(before, 10.0);
      // Where only one end is seen from then on, nothing tells that the body has turned back.
      // Seen from ahead its ends lie near each other all along, and nothing hides.
      endOn_[name] = !motion_.seenFromAhead() && now < kEndOn * longest_px_.at(name);
    }
    mine.doubtful = endOn_[name];
    const MarkDetail& detail = details_.at(name);
    double likeness = mine.likeness;
    if (detail.standsOut() && mine.likeness > 0.0) {
      const double own = detail.likenessAt(picture, {mine.at, mine.angle_rad, scale_});
      mine.doubtful |= own < kDetailMissing;
      likeness = joint(likeness, own);
    }
    mine.quality = qualityOf(likeness, stretch);
  }
}

void MarkFollower::learn(const Picture& picture, const std::map<MarkName, Looked>& looked) {
  for (const auto& [name, mine] : looked) {
    if (mine.likeness > kLearnBelow || mine.likeness < kLearnFrom || mine.quality < kLearnQuality) continue;
    const PatchPose pose{mine.at, mine.angle_rad, scale_};
    MarkAppearance& appearance = appearances_.at(name);
    // A body turns, and an end may look all different then; a soft tip that does is hidden by something.
    if (!rigidPartnerOf(name) && appearance.likenessOfGiven(picture.grey(), pose) < kStillItself) continue;
    appearance.addMet(picture.grey(), pose);
  }
}

/// How large the lure is in the picture now: by the size at which the given looks fit best. Of a lure that
/// comes towards the camera; one that is seen from the side looks smaller as it turns, and is not.
void MarkFollower::grow(const Picture& picture, const std::map<MarkName, Looked>& looked) {
  double smaller = 0.0;
  double same = 0.0;
  double larger = 0.0;
  for (const auto& [name, mine] : looked) {
    if (!isSeenFromAhead(name) || mine.likeness < kFitsToTellSize) continue;
    const auto likeness = [&, n = name](double scale) {
      return appearances_.at(n).likenessOfGiven(picture.grey(), {mine.at, mine.angle_rad, scale});
    };
    const double now = likeness(scale_);
    if (now < kFitsToTellSize) continue;
    smaller += likeness(scale_ / kSizeStep);
    same += now;
    larger += likeness(scale_ * kSizeStep);
  }
  // The top of the parabola through the three, in steps.
  const double bend = smaller - 2.0 * same + larger;
  if (bend >= 0.0) return;
  const double steps = std::clamp(0.5 * (smaller - larger) / bend, -1.0, 1.0);
  scale_ = std::clamp(scale_ * std::pow(kSizeStep, kSizeMemory * steps), 1.0 / kMostGrowth, kMostGrowth);
}

}  // namespace fin
