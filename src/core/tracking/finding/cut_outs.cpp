// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/cut_outs.h"

#include <algorithm>
#include <cmath>
#include <span>

#include "core/tracking/outline/still_outline.h"
#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr std::size_t kViews = 8;      ///< that are cut out
constexpr double kUsualLong = 0.85;    ///< quantile of the lengths seen: longer ones are two things at once
constexpr double kOtherLength = 0.15;  ///< by which a view is another thing

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

Result<CutOut> cutOut(FrameSource& source, const ThingSeen& seen) {
  const auto picture = source.frame(seen.frame);
  if (!picture) return tl::unexpected(picture.error());
  auto outline = outlineInStill(*picture, seen.outline);
  if (!outline) return tl::unexpected(outline.error());
  const auto axis = longAxisOf(*outline);
  if (!axis) return failure(ErrorCode::Lost, "the lure is too small in the picture");
  return CutOut{seen.frame, laidOut(*picture, *outline, *axis), std::move(*outline)};
}

}  // namespace

double bodyLength(const std::vector<CutOut>& views) {
  std::vector<double> lengths;
  for (const CutOut& view : views) lengths.push_back(view.body.length_px);
  return quantileOf(std::span(lengths), 0.5);
}

Result<std::vector<CutOut>> cutOutsOf(FrameSource& source, const MovingThing& thing, const JobControl& job) {
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

}  // namespace fin
