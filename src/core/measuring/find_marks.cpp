// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/find_marks.h"

#include <algorithm>

#include "core/measuring/measure.h"
#include "core/readings/registry.h"

namespace fin {
namespace {

bool needsOutline(Protocol protocol) {
  const auto readings = readingsOf(protocol);
  return std::any_of(readings.begin(), readings.end(), [](const ReadingSpec& spec) {
    return spec.needsOutline && spec.askedWith == AskedWith::Always;
  });
}

}  // namespace

Result<FoundPass> findMarks(PassRequest request, const std::shared_ptr<const Clip>& clip,
                            const JobControl& job) {
  if (request.view == View::HeadOn)
    return failure(ErrorCode::Lost, "seen from ahead back and belly are placed by hand");
  const std::size_t last = lastFrameOf(request, *clip);
  if (request.firstFrame > last)
    return failure(ErrorCode::BadRequest, "first_frame: the clip ends before it", "first_frame");
  FindRequest asked{
      .window = {request.firstFrame, last}, .cameraMoves = request.view == View::Chase, .pull = {}};
  const bool falls = request.protocol == Protocol::Fall || request.protocol == Protocol::Rest;
  if (falls) asked.frontBy = FrontBy::Fall;
  if (request.pull) asked.pull = directionOf(*request.pull);
  const auto source = Clip::reader(clip, {});
  if (!source) return tl::unexpected(source.error());
  auto lure = findLure(**source, asked, job);
  if (!lure) return tl::unexpected(lure.error());
  FoundPass out{std::move(request), std::move(lure->marks)};
  out.request.findMarks = false;
  out.request.marks.clear();
  for (const FoundMark& mark : out.found) out.request.marks.push_back(mark.seed);
  if (!out.request.outline && needsOutline(out.request.protocol))
    out.request.outline = std::move(lure->outline);
  return out;
}

}  // namespace fin
