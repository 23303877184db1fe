// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/crossings.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/tracking/marks/mark_detail.h"

namespace fin {
namespace {

constexpr std::size_t kLookEvery = 10;  ///< frames
constexpr std::size_t kAway = 10;       ///< frames out of sight that end a way through the picture
constexpr std::size_t kShortest = 12;   ///< frames of a way worth having
constexpr std::size_t kPlaces = 12;
constexpr double kLikeness = 0.7;
constexpr double kContrast = 0.5;
constexpr double kApartWithin = 0.12;  ///< of their distance where they were placed
constexpr int kDetailRadius_px = 9;
constexpr double kSame_px = 2.0;
constexpr double kClear_px = 10.0;  ///< from the picture's edge

/// Both ends of the lure, by what stands out at them.
class Ends {
 public:
  static std::optional<Ends> learn(FrameSource& source, const std::vector<MarkSeed>& seeds) {
    for (const MarkSeed& nose : seeds) {
      for (const MarkSeed& tail : seeds) {
        if (nose.name != MarkName::Nose || tail.name != MarkName::Tail || nose.frame != tail.frame) continue;
        const auto picture = source.frame(nose.frame);
        if (!picture) return std::nullopt;
        Ends out;
        out.details_[0].addGiven(*picture, {nose.at, 0.0}, kDetailRadius_px);
        out.details_[1].addGiven(*picture, {tail.at, 0.0}, kDetailRadius_px);
        out.apart_px_ = length(nose.at - tail.at).value();
        if (!out.details_[0].standsOut() || !out.details_[1].standsOut()) return std::nullopt;
        return out;
      }
    }
    return std::nullopt;
  }

  /// The pair that looks most like them, at about their distance.
  [[nodiscard]] std::optional<std::array<PixelPoint, 2>> in(const Picture& picture) const {
    const std::vector<Place> noses = placesOf(details_[0], picture);
    if (noses.empty()) return std::nullopt;
    std::optional<std::array<PixelPoint, 2>> best;
    double worth = 0.0;
    for (const Place& tail : placesOf(details_[1], picture)) {
      for (const Place& nose : noses) {
        const double apart = length(nose.at - tail.at).value();
        if (std::abs(apart / apart_px_ - 1.0) > kApartWithin || nose.worth + tail.worth <= worth) continue;
        worth = nose.worth + tail.worth;
        best = {nose.at, tail.at};
      }
    }
    return best;
  }

 private:
  struct Place {
    PixelPoint at;
    double worth;
  };
  static std::vector<Place> placesOf(const MarkDetail& detail, const Picture& picture) {
    const PixelPoint middle{0.5 * (picture.width() - 1), 0.5 * (picture.height() - 1)};
    const int reach = std::max(picture.width(), picture.height()) / 2;
    std::vector<Place> out;
    for (const PixelPoint at : detail.places(picture, {middle, 0.0}, reach, kPlaces)) {
      const bool clear = at.x_px > kClear_px && at.y_px > kClear_px &&
                         at.x_px < picture.width() - kClear_px && at.y_px < picture.height() - kClear_px;
      if (!clear || detail.contrastAt(picture, at) < kContrast) continue;
      const double likeness = detail.likenessAt(picture, {at, 0.0});
      if (likeness >= kLikeness) out.push_back({detail.settle(picture, {at, 0.0}).value_or(at), likeness});
    }
    return out;
  }

  std::array<MarkDetail, 2> details_;
  double apart_px_ = 0.0;
};

bool bothSeen(const Track& track, std::size_t i) {
  return track.find(MarkName::Nose)->samples[i].seen && track.find(MarkName::Tail)->samples[i].seen;
}

/// Frames around one of the track in which both ends are seen, with no long gap.
FrameStretch wayAround(const Track& track, std::size_t frame) {
  FrameStretch out{frame, frame};
  const std::size_t last = track.firstFrame + track.frameCount - 1;
  for (std::size_t n = frame; n <= last && n <= out.last + kAway; ++n) {
    if (bothSeen(track, n - track.firstFrame)) out.last = n;
  }
  for (std::size_t n = frame + 1; n-- > track.firstFrame && n + kAway >= out.first;) {
    if (bothSeen(track, n - track.firstFrame)) out.first = n;
  }
  return out;
}

/// What is followed is what is found again, looked for on its own, half way to the end of the way.
bool confirmed(FrameSource& source, const Ends& ends, const Track& way, FrameStretch frames,
               std::size_t from) {
  const std::size_t there = from + (frames.last - from) / 2;
  const auto picture = source.frame(there);
  const auto found = picture ? ends.in(*picture) : std::nullopt;
  if (!found || !bothSeen(way, there - way.firstFrame)) return false;
  const auto off = [&](MarkName name, PixelPoint at) {
    return length(way.find(name)->samples[there - way.firstFrame].at - at).value();
  };
  return off(MarkName::Nose, (*found)[0]) < kSame_px && off(MarkName::Tail, (*found)[1]) < kSame_px;
}

}  // namespace

Result<std::vector<Crossing>> findCrossings(FrameSource& source, const FollowRequest& request,
                                            const Track& track, const JobControl& job) {
  std::vector<Crossing> out;
  if (track.find(MarkName::Nose) == nullptr || track.find(MarkName::Tail) == nullptr) return out;
  const auto ends = Ends::learn(source, request.seeds);
  if (!ends) return out;
  const std::size_t end = source.frameCount() - 1;
  std::size_t from = wayAround(track, request.seeds.front().frame).last + kAway;
  for (std::size_t n = from; n <= end; n += kLookEvery) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "looking was stopped");
    job.report(static_cast<double>(n) / static_cast<double>(end));
    const auto picture = source.frame(n);
    if (!picture && picture.error().code != ErrorCode::Damaged) return tl::unexpected(picture.error());
    const auto found = picture ? ends->in(*picture) : std::nullopt;
    if (!found) continue;
    const std::vector<MarkSeed> seeds{{MarkName::Nose, n, (*found)[0]}, {MarkName::Tail, n, (*found)[1]}};
    const auto way = followMarks(source, {seeds, from, end, request.hidden}, {job.stop, {}});
    if (!way && way.error().code == ErrorCode::Cancelled) return tl::unexpected(way.error());
    if (!way) continue;
    const FrameStretch frames = wayAround(*way, n);
    if (frames.last - frames.first + 1 < kShortest || !confirmed(source, *ends, *way, frames, n)) continue;
    // Where it is in the picture from the start, it had never left: no further way.
    if (frames.first > from) out.push_back({frames, seeds});
    from = frames.last + kAway;
    n = from - kLookEvery;
  }
  return out;
}

}  // namespace fin
