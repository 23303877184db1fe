// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/watch_body.h"

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <optional>

#include "core/tracking/body/riding.h"

namespace fin {
namespace {

constexpr double kSureAgreement = 0.7;  ///< of what the shape agrees at its seed
constexpr double kSureMargin = 3.0;
constexpr double kSureDoubt_px = 2.5;
constexpr double kSureDoubtOfBody = 0.03;
constexpr double kCarriedQuality = 0.6;
constexpr double kContradictedQuality = 0.45;

PoseHints hintsOf(const ReducedFilm& film, const std::vector<MarkSeed>& seeds, const Track& track) {
  PoseHints out;
  for (const MarkSeed& a : seeds) {
    for (const MarkSeed& b : seeds) {
      if (a.name == MarkName::Nose && b.name == MarkName::Tail && a.frame == b.frame)
        out.given[a.frame] = {film.toReduced(a.at), film.toReduced(b.at)};
    }
  }
  const MarkTrack* nose = track.find(MarkName::Nose);
  const MarkTrack* tail = track.find(MarkName::Tail);
  if (nose == nullptr || tail == nullptr) return out;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const MarkSample& a = nose->samples[i];
    const MarkSample& b = tail->samples[i];
    if (a.seen && b.seen) out.found[track.firstFrame + i] = {film.toReduced(a.at), film.toReduced(b.at)};
  }
  return out;
}

MarkSample carried(const MarkSample& followed, const RidingMark& riding, bool poseIsSure, double body_px) {
  const bool followedSurely = followed.seen && followed.quality >= kDoubtfulBelow;
  if (followedSurely && riding.agrees) return followed;
  const bool sure = poseIsSure && riding.doubt_px <= std::max(kSureDoubt_px, kSureDoubtOfBody * body_px);
  if (sure) return {true, riding.at, kCarriedQuality};
  MarkSample out = followed;
  if (poseIsSure) out = {true, riding.at, kContradictedQuality};
  out.quality = std::min(out.quality, kContradictedQuality);
  return out;
}

}  // namespace

void watchBody(const ReducedFilm& film, const std::vector<MarkSeed>& seeds, bool moving, Foreshortening turns,
               Track& track) {
  const PoseHints hints = hintsOf(film, seeds, track);
  if (hints.given.empty() || film.frames.empty()) return;
  const auto& [frame, seed] = *hints.given.begin();
  const auto known = [&](std::size_t n) -> std::optional<BodyPose> {
    const auto found = hints.found.find(n);
    return found == hints.found.end() ? std::nullopt : std::optional(found->second);
  };
  const BodyEvidence evidence(film, frame, seed, known, moving);
  const PosePath path = findPosePath(film, evidence, hints, turns);
  if (const char* file = std::getenv("FIN_BODY_DUMP")) {
    std::FILE* f = std::fopen(file, "w");
    std::fprintf(f, "frame,nose_x_px,nose_y_px,nose_quality,tail_x_px,tail_y_px,tail_quality,agreement,likeness,margin\n");
    for (const auto& [n, p] : path) {
      const PixelPoint a = film.toFull(p.pose.nose);
      const PixelPoint b = film.toFull(p.pose.tail);
      std::fprintf(f, "%zu,%.3f,%.3f,1,%.3f,%.3f,1,%.3f,%.3f,%.3f\n", n, a.x_px, a.y_px, b.x_px, b.y_px, p.agreement, p.likeness, p.margin);
    }
    std::fclose(f);
  }
  std::map<std::size_t, BodyPose> way;
  for (const auto& [n, posed] : path) way[n] = {film.toFull(posed.pose.nose), film.toFull(posed.pose.tail)};
  const cv::Mat& picture = film.frames.begin()->second;
  const PixelPoint middle = film.toFull({0.5 * (picture.cols - 1), 0.5 * (picture.rows - 1)});
  for (MarkTrack& mark : track.marks) {
    if (mark.name != MarkName::Nose && mark.name != MarkName::Tail) continue;
    const auto riding = rideOn(way, mark, track.firstFrame, seeds, middle);
    for (const auto& [n, at] : riding) {
      const PosedFrame& posed = path.at(n);
      const bool sure = posed.agreement >= kSureAgreement && posed.margin >= kSureMargin;
      MarkSample& sample = mark.samples[n - track.firstFrame];
      sample = carried(sample, at, sure, seed.length_px() / film.scale);
    }
  }
}

}  // namespace fin
