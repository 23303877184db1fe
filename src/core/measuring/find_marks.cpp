// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/find_marks.h"

#include <algorithm>
#include <iterator>

#include "core/measuring/measure.h"

namespace fin {
namespace {

/// Elsewhere marks tell all there is, and a rough outline would only be in the way.
bool needsOutline(Protocol protocol) {
  return protocol == Protocol::Skirt || protocol == Protocol::Still;
}

FindRequest askedFor(const PassRequest& request, const Clip& clip) {
  FindRequest out{.window = {request.firstFrame, lastFrameOf(request, clip)},
                  .cameraMoves = request.view == View::Chase,
                  .pull = {},
                  .looksLike = {}};
  const bool falls = request.protocol == Protocol::Fall || request.protocol == Protocol::Rest;
  if (falls) out.frontBy = FrontBy::Fall;
  if (request.pull) out.pull = directionOf(*request.pull);
  return out;
}

constexpr double kLengthU95 = 0.07;  ///< of it: a silhouette is good to some 5 %, and it may be seen askew

OwnLength ownLengthOf(const std::vector<MarkSeed>& marks, Pixels body, Millimetres length) {
  const auto at = [&](MarkName name) {
    return std::find_if(marks.begin(), marks.end(), [name](const MarkSeed& m) { return m.name == name; })->at;
  };
  const Millimetres between = length * (fin::length(at(MarkName::Nose) - at(MarkName::Tail)) / body);
  return {between, between * kLengthU95};
}

}  // namespace

Result<FoundPass> findMarks(PassRequest request, const std::shared_ptr<const Clip>& clip,
                            const KnownLure& known, const JobControl& job) {
  if (request.view == View::HeadOn)
    return failure(ErrorCode::Lost, "seen from ahead back and belly are placed by hand");
  if (request.firstFrame > lastFrameOf(request, *clip))
    return failure(ErrorCode::BadRequest, "first_frame: the clip ends before it", "first_frame");
  FindRequest asked = askedFor(request, *clip);
  asked.looksLike = known.look;
  const auto source = Clip::reader(clip, {});
  if (!source) return tl::unexpected(source.error());
  auto lure = findLure(**source, asked, job);
  if (!lure) return tl::unexpected(lure.error());
  FoundPass out{std::move(request), std::move(lure->marks)};
  out.request.findMarks = false;
  out.request.looksLike.reset();
  out.request.marks.clear();
  for (const FoundMark& mark : out.found) out.request.marks.push_back(mark.seed);
  if (!out.request.outline && needsOutline(out.request.protocol))
    out.request.outline = std::move(lure->outline);
  const bool sized = out.request.scale || out.request.square || out.request.ownLength;
  if (known.length && !sized)
    out.request.ownLength = ownLengthOf(out.request.marks, lure->body, *known.length);
  return out;
}

Result<std::shared_ptr<const LureLook>> lookOfPass(const PassRequest& pass, const JobControl& job) {
  const auto clip = openClip(pass, {.job = {job.stop, {}}});
  if (!clip) return tl::unexpected(clip.error());
  const auto source = Clip::reader(*clip, {});
  if (!source) return tl::unexpected(source.error());
  std::vector<MarkSeed> marks;
  std::copy_if(pass.marks.begin(), pass.marks.end(), std::back_inserter(marks), [](const MarkSeed& m) {
    return m.name == MarkName::Nose || m.name == MarkName::Tail || m.name == MarkName::Tip;
  });
  return lookOf(**source, askedFor(pass, **clip), marks, job);
}

}  // namespace fin
