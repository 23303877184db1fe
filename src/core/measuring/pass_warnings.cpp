// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/pass_warnings.h"

#include <fmt/format.h>
#include <algorithm>

#include "core/tracking/background/sway.h"

namespace fin {
namespace {

constexpr double kFollowedShareWanted = 0.9;
constexpr double kDoubtfulShareAllowed = 0.1;
constexpr double kTailFirst = -0.6;  ///< mean cosine between its axis and its way

/// On a pull a lure goes nose first: where it went the other way all along, its ends were taken for each
/// other.
bool swimsTailFirst(const PassRequest& request, const Track& track) {
  if (request.protocol != Protocol::Retrieve || request.view == View::HeadOn || request.view == View::Chase)
    return false;
  const MarkTrack* nose = track.find(MarkName::Nose);
  const MarkTrack* tail = track.find(MarkName::Tail);
  if (nose == nullptr || tail == nullptr) return false;
  std::optional<PixelPoint> first;
  PixelPoint way;
  double ahead = 0.0;
  double frames = 0.0;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (!nose->samples[i].seen || !tail->samples[i].seen) continue;
    if (!first) first = tail->samples[i].at;
    way = tail->samples[i].at - *first;
    const PixelPoint axis = nose->samples[i].at - tail->samples[i].at;
    const double far = length(axis).value() * length(way).value();
    if (length(way).value() < length(axis).value()) continue;
    ahead += dot(axis, way) / far;
    frames += 1.0;
  }
  return frames > 0.0 && ahead < kTailFirst * frames;
}

}  // namespace

std::vector<std::string> warningsFor(const PassRequest& request, const Clip& clip, const PassResult& result) {
  std::vector<std::string> out = clip.info().warnings;
  const std::size_t last = clip.index().frameCount() - 1;
  if (request.lastFrame && *request.lastFrame > last) {
    out.push_back(fmt::format("last_frame is past the end; the clip's last frame {} is used", last));
  }
  if (!result.track.outlineLost.empty()) out.push_back(result.track.outlineLost);
  const std::size_t followed = result.track.followed();
  if (!result.track.marks.empty() &&
      static_cast<double>(followed) < kFollowedShareWanted * static_cast<double>(result.track.frameCount)) {
    out.push_back(
        fmt::format("the marks were followed in {} of {} frames only; place one again where it is lost",
                    followed, result.track.frameCount));
  }
  const double sway_px = request.view == View::Chase ? 0.0 : swayOf_px(result.track.background);
  if (sway_px > 0.0 && wasCarried(result.track.background))
    out.push_back(fmt::format(
        "the camera moved along by some {:.0f} px: what rests on where the lure is cannot be told; "
        "film from a stand",
        sway_px));
  else if (sway_px > 0.0)
    out.push_back(fmt::format(
        "the camera swayed by up to {:.1f} px; that was taken out, by what lies behind the lure", sway_px));
  if (swimsTailFirst(request, result.track))
    out.push_back(
        "it swims tail first: were nose and tail taken for each other? Place them the other way round");
  for (const MarkTrack& mark : result.track.marks) {
    const auto doubtful = std::count_if(mark.samples.begin(), mark.samples.end(), [](const MarkSample& s) {
      return s.seen && s.quality < kDoubtfulBelow;
    });
    if (static_cast<double>(doubtful) <= kDoubtfulShareAllowed * static_cast<double>(mark.samples.size()))
      continue;
    out.push_back(
        fmt::format("the {} is doubtful in {} of {} frames: hidden, lost or beside its place; look there, "
                    "and correct it",
                    toString(mark.name), doubtful, mark.samples.size()));
  }
  return out;
}

}  // namespace fin
