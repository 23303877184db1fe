// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/skirt.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>

#include "core/signals/local_fit.h"

namespace fin {
namespace {

constexpr double kRimU95_px = 0.5;    ///< by which the rim may be off, another way at rest than in motion
constexpr double kStopShare = 0.3;    ///< of the pace while it moves
constexpr double kMovingShare = 0.8;  ///< of the way to the stop, that counts as moving
constexpr double kAtRest_s = 1.0;
constexpr double kOpens_s = 1.0;
constexpr double kSmooth_s = 0.04;     ///< either way
constexpr double kGoneAtLeast = 0.10;  ///< of the moving area: less than this does not collapse
constexpr double kRimNoise = 0.12;     ///< of its pixels, that change from frame to frame
constexpr std::size_t kFewestFrames = 8;

const ReadingId kSkirtNames[] = {ReadingId::FlareMoving, ReadingId::FlareRest, ReadingId::FlarePeakRatio,
                                 ReadingId::FlareHalfLife, ReadingId::Quiver};

/// When it stops: the pace falls below a share of what it was while moving, and does not rise above it again.
std::optional<double> stopOf(const Series& pace) {
  if (pace.size() < kFewestFrames) return std::nullopt;
  std::vector<double> sorted = pace.y;
  std::sort(sorted.begin(), sorted.end());
  const double fast = sorted[sorted.size() * 9 / 10];
  for (std::size_t i = pace.size(); i-- > 0;) {
    if (pace.y[i] < kStopShare * fast) continue;
    if (i + kFewestFrames >= pace.size()) return std::nullopt;  // it does not come to rest
    return pace.t_s[i + 1];
  }
  return std::nullopt;
}

Estimate areaEstimate(const Series& part, const OutlineTraces& traces) {
  Estimate e;
  e.value = median(part.y);
  const double rim = kRimU95_px * traces.perimeter_px / std::max(traces.area_px2, 1.0);
  const double scatter =
      robustSpread(part.y) / std::sqrt(std::max(1.0, static_cast<double>(part.size()) / 6.0));
  e.setUncertainty({{UncertaintySource::OutlineEdge, e.value * rim},
                    {UncertaintySource::Scale, e.value * 2.0 * traces.scaleRelativeU95},
                    {UncertaintySource::Scatter, kNormal95 * scatter}});
  e.n = static_cast<double>(part.size());
  e.grade = gradeOf(e.value, e.u95);
  return e;
}

void readPeak(const Series& area, double stop_s, const Estimate& moving, const Estimate& rest,
              const OutlineTraces& traces, ReadingSheet& sheet) {
  const Series opening = smoothed(area, kSmooth_s).between(stop_s, stop_s + kOpens_s);
  if (opening.empty() || moving.value <= 0.0) return;
  const auto top = std::max_element(opening.y.begin(), opening.y.end());
  const double peak_s = opening.t_s[static_cast<std::size_t>(top - opening.y.begin())];
  Estimate ratio;
  ratio.value = *top / moving.value;
  const double rim = std::sqrt(2.0) * kRimU95_px * traces.perimeter_px / std::max(traces.area_px2, 1.0);
  const double shaking =
      robustSpread(area.between(area.t_s.front(), stop_s).y) / moving.value;  // the widest of many
  ratio.setUncertainty({{UncertaintySource::OutlineEdge, ratio.value * rim},
                        {UncertaintySource::Scatter, kNormal95 * ratio.value * shaking}});
  ratio.n = static_cast<double>(opening.size());
  ratio.grade = gradeOf(ratio.value, ratio.u95);
  sheet.give(ReadingId::FlarePeakRatio, ratio);

  const double gone = *top - rest.value;
  if (gone < kGoneAtLeast * moving.value) {
    sheet.refuse(ReadingId::FlareHalfLife, "the skirt stays as open as it was at its widest");
    return;
  }
  const Series after = smoothed(area, kSmooth_s).between(peak_s, area.t_s.back());
  for (std::size_t i = 1; i < after.size(); ++i) {
    const double half = rest.value + 0.5 * gone;
    if (after.y[i] > half) continue;
    const double share = (after.y[i - 1] - half) / std::max(after.y[i - 1] - after.y[i], 1e-9);
    Estimate time;
    time.value = after.t_s[i - 1] + share * (after.t_s[i] - after.t_s[i - 1]) - peak_s;
    // When it was widest is known as well as the area's own noise lets it be told: on a flat top, and between
    // two openings that are nearly as wide.
    const double nearly = *top - kNormal95 * shaking * moving.value;
    const auto first =
        std::find_if(opening.y.begin(), opening.y.end(), [&](double y) { return y >= nearly; });
    const double earlier_s = peak_s - opening.t_s[static_cast<std::size_t>(first - opening.y.begin())];
    const double fall = gone / std::max(2.0 * time.value, 1e-3);
    time.setUncertainty({{UncertaintySource::FrameTime, std::max(2.0 * kSmooth_s, earlier_s)},
                         {UncertaintySource::Scatter, kNormal95 * robustSpread(after.y) / 6.0 / fall}});
    time.n = static_cast<double>(after.size());
    time.grade = gradeOf(time.value, time.u95);
    sheet.give(ReadingId::FlareHalfLife, time);
    return;
  }
  sheet.refuse(ReadingId::FlareHalfLife, "half of its opening has not gone before the view ends; film on");
}

void readQuiver(const OutlineTraces& traces, double from_s, ReadingSheet& sheet) {
  const Series rest = traces.change.between(from_s, traces.change.empty() ? 0.0 : traces.change.t_s.back());
  if (rest.size() < kFewestFrames) return;
  const double power = std::inner_product(rest.y.begin(), rest.y.end(), rest.y.begin(), 0.0);
  Estimate e;
  e.value = 100.0 * std::sqrt(power / static_cast<double>(rest.size()));
  // Noise at the rim quivers as well.
  const double noise = 100.0 * kRimNoise * traces.perimeter_px / std::max(traces.area_px2, 1.0);
  e.setUncertainty({{UncertaintySource::OutlineEdge, noise},
                    {UncertaintySource::Scatter,
                     kNormal95 * e.value / std::sqrt(2.0 * static_cast<double>(rest.size()))}});
  e.n = static_cast<double>(rest.size());
  e.grade = gradeOf(e.value, e.u95);
  e.notes.push_back("noise and coding at the rim quiver too: compare passes of one camera");
  sheet.give(ReadingId::Quiver, e);
}

}  // namespace

void readSkirt(const OutlineTraces& traces, ReadingSheet& sheet) {
  if (traces.area.size() < kFewestFrames) return;
  const auto stop = stopOf(traces.pace);
  if (!stop) {
    for (const ReadingId id : kSkirtNames)
      sheet.refuse(id, "the lure does not come to a stop in view; pull, then let it lie");
    return;
  }
  sheet.evidence().stop_s = *stop;
  const double start = traces.area.t_s.front();
  const Series moving = traces.area.between(start, start + kMovingShare * (*stop - start));
  const double end = traces.area.t_s.back();
  const Series rest = traces.area.between(end - kAtRest_s, end);
  if (moving.size() < kFewestFrames || rest.size() < kFewestFrames || end - kAtRest_s < *stop) {
    for (const ReadingId id : kSkirtNames)
      sheet.refuse(id, "too short: a second of pull and two of rest are wanted");
    return;
  }
  const Estimate movingArea = areaEstimate(moving, traces);
  const Estimate restArea = areaEstimate(rest, traces);
  sheet.give(ReadingId::FlareMoving, movingArea);
  sheet.give(ReadingId::FlareRest, restArea);
  readPeak(traces.area, *stop, movingArea, restArea, traces, sheet);
  readQuiver(traces, end - kAtRest_s, sheet);
}

}  // namespace fin
