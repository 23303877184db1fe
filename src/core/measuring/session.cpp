// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/session.h"

#include <algorithm>
#include <chrono>

namespace fin {
namespace {

bool hasSeed(const PassRequest& request, MarkName name) {
  return std::any_of(request.marks.begin(), request.marks.end(),
                     [name](const MarkSeed& s) { return s.name == name; });
}

double now_s() {
  return std::chrono::duration<double>(std::chrono::system_clock::now().time_since_epoch()).count();
}

Result<Track> follow(const MeasuringOrder& order, const std::shared_ptr<const Clip>& clip,
                     const MeasuringMeans& means, const JobControl& job) {
  Clip::ReaderOptions options;
  options.threads = means.threads;
  const auto source = Clip::reader(clip, options);
  if (!source) return tl::unexpected(source.error());
  const Measurement* earlier = order.anew ? nullptr : order.earlier.get();
  if (earlier != nullptr && earlier->clip == clip->info().fingerprint &&
      earlier->followingVersion == kFollowingVersion)
    return followPassAgain(order.request, earlier->track, earlier->followedFrom, *clip, **source, job,
                           means.keptBytes);
  return followPass(order.request, *clip, **source, job, means.keptBytes);
}

/// Frame counts, readings and warnings into a record of their own.
std::shared_ptr<const Measurement> recordOf(const MeasuringOrder& order, const Clip& clip,
                                            const PassResult& result, bool followed) {
  auto out = std::make_shared<Measurement>();
  out->clip = clip.info().fingerprint;
  out->followedFrom = followed ? order.request : order.earlier->followedFrom;
  out->followingVersion = kFollowingVersion;
  out->followedAt_s = followed ? now_s() : order.earlier->followedAt_s;
  out->track = result.track;
  out->readFrom = order.request;
  out->methodVersion = kMethodVersion;
  out->madeAt_s = now_s();
  out->frames = {result.track.frameCount, result.track.followed(), result.track.bridged()};
  out->readings = result.readings;
  out->warnings = result.warnings;
  return out;
}

}  // namespace

bool readyToFollow(const PassRequest& request) {
  const auto both = [&request](MarkName a, MarkName b) { return hasSeed(request, a) && hasSeed(request, b); };
  return request.protocol == Protocol::Sound || request.outline || both(MarkName::Nose, MarkName::Tail) ||
         (request.view == View::HeadOn && both(MarkName::Back, MarkName::Belly));
}

NextStep nextStep(const MeasuringOrder& order, const ClipFingerprint& now) {
  if (order.madeOn != now) return NextStep::ChooseClip;
  const MeasurementState state = stateOf(order.earlier.get(), order.request, now);
  if (!order.anew && state == MeasurementState::Current) return NextStep::Nothing;
  if (!order.anew && state == MeasurementState::NeedsReading) return NextStep::Read;
  return readyToFollow(order.request) ? NextStep::Follow : NextStep::Mark;
}

Result<Measured> measure(const MeasuringOrder& order, const std::shared_ptr<const Clip>& clip,
                         const MeasuringMeans& means, const JobControl& job) {
  const NextStep step = nextStep(order, clip->info().fingerprint);
  const std::string name = clip->info().path.filename().string();
  if (step == NextStep::ChooseClip)
    return failure(ErrorCode::ClipChanged, name + " is another file than this pass was made on", name);
  // With some marks placed, what they tell is told, and the rest refused.
  if (step == NextStep::Mark && order.request.marks.empty())
    return failure(ErrorCode::BadRequest, "place the lure's ends or draw its outline first", "marks");
  Track track;
  const bool followed = step == NextStep::Follow || step == NextStep::Mark;
  if (followed) {
    auto fresh = follow(order, clip, means, job);
    if (!fresh) return tl::unexpected(fresh.error());
    track = std::move(*fresh);
  } else {
    track = order.earlier->track;
  }
  auto result = readPass(order.request, *clip, std::move(track), job);
  if (!result) return tl::unexpected(result.error());
  auto record = step == NextStep::Nothing ? order.earlier : recordOf(order, *clip, *result, followed);
  return Measured{std::move(record), std::move(*result), followed};
}

Result<std::vector<MeasuredPart>> measureStretches(const PassRequest& request, const Track& track,
                                                   const std::shared_ptr<const Clip>& clip,
                                                   const JobControl& job) {
  auto parts = passesOfStretches(request, *clip, track);
  if (!parts) return tl::unexpected(parts.error());
  std::vector<MeasuredPart> out;
  for (StretchPass& part : *parts) {
    auto followed = std::make_shared<Measurement>();
    followed->clip = clip->info().fingerprint;
    followed->followedFrom = part.request;
    followed->followingVersion = kFollowingVersion;
    followed->followedAt_s = now_s();
    followed->track = std::move(part.track);
    auto measured = measure({part.request, followed->clip, followed}, clip, {}, job);
    if (!measured) return tl::unexpected(measured.error());
    out.push_back({std::move(part.request), std::move(measured->measurement)});
  }
  return out;
}

}  // namespace fin
