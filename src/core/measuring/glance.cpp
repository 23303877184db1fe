// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/glance.h"

#include <algorithm>
#include <limits>

#include "core/calibration/clip_clock.h"

namespace fin {
namespace {

/// Quality of the least sure mark in the i-th frame of a track; none where no mark is seen.
std::optional<double> leastSure(const Track& track, std::size_t i) {
  std::optional<double> out;
  for (const auto& [name, samples] : track.marks) {
    if (i >= samples.size() || !samples[i].seen) continue;
    out = std::min(out.value_or(1.0), samples[i].quality);
  }
  return out;
}

void addMarks(const Track& track, Still& still) {
  if (still.frame < track.firstFrame) return;
  const std::size_t i = still.frame - track.firstFrame;
  still.least = leastSure(track, i).value_or(0.0);
  for (const auto& [name, samples] : track.marks) {
    if (i < samples.size() && samples[i].seen) still.marks.emplace_back(name, samples[i].at);
  }
}

/// Of a clip in which nothing was followed.
FramesToSee framesOf(const PassRequest& request, const Clip& clip) {
  const std::size_t last = lastFrameOf(request, clip);
  if (request.firstFrame >= last) return {{std::min(request.firstFrame, last)}, {}};
  return {{request.firstFrame, (request.firstFrame + last) / 2, last}, {}};
}

}  // namespace

FramesToSee framesToSee(const Track& track) {
  std::vector<std::pair<std::size_t, double>> seen;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (const auto sure = leastSure(track, i)) seen.emplace_back(i, *sure);
  }
  if (seen.empty()) return {};
  const std::size_t first = seen.front().first, middle = seen[seen.size() / 2].first;
  std::optional<std::size_t> doubt;
  double least = std::numeric_limits<double>::max();
  for (const auto& [i, sure] : seen) {
    if (i == first || i == middle || sure >= least) continue;
    least = sure;
    doubt = i;
  }
  std::vector<std::size_t> frames{first};
  if (middle != first) frames.push_back(middle);
  if (doubt) frames.push_back(*doubt);
  std::sort(frames.begin(), frames.end());
  FramesToSee out;
  for (std::size_t k = 0; k < frames.size(); ++k) {
    out.frames.push_back(track.firstFrame + frames[k]);
    if (doubt && frames[k] == *doubt) out.doubt = k;
  }
  return out;
}

Result<Glance> glanceAt(const MeasuringOrder& order, const std::shared_ptr<const Clip>& clip,
                        const JobControl& job) {
  Glance out;
  const NextStep step = nextStep(order, clip->info().fingerprint);
  if (step == NextStep::Nothing || step == NextStep::Read) {
    auto measured = measure(order, clip, {}, {job.stop, {}});
    if (!measured) return tl::unexpected(measured.error());
    out.result = std::move(measured->result);
    if (const auto parts = passesOfStretches(order.request, *clip, out.result->track)) {
      for (const StretchPass& part : *parts) out.several.push_back(part.request.protocol);
    }
  }
  FramesToSee wanted = out.result ? framesToSee(out.result->track) : FramesToSee{};
  if (wanted.frames.empty()) wanted = framesOf(order.request, *clip);
  out.doubt = wanted.doubt;
  const auto clock = ClipClock::create(clip->index(), order.request.captureRate);
  const auto source = Clip::reader(clip, {});
  if (!source) return tl::unexpected(source.error());
  for (const std::size_t frame : wanted.frames) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "the look was given up");
    auto picture = (*source)->frame(frame);
    if (!picture) return tl::unexpected(picture.error());
    Still still{frame, clock ? clock->timeOf(frame) : Seconds(0.0), {}, 0.0};
    if (out.result) addMarks(out.result->track, still);
    out.stills.push_back(std::move(still));
    out.pictures.push_back(std::move(*picture));
  }
  return out;
}

}  // namespace fin
