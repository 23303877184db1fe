// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/own_ruler.h"

#include <algorithm>
#include <cmath>

#include "core/signals/line_power.h"
#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kUsualStretch_s = 0.5;
constexpr double kSmoothOf = 0.1;   ///< of a stretch
constexpr double kNoiseAdds = 0.6;  ///< standard deviations, to the largest of a smoothed stretch
constexpr double kMarks_px = 0.6;
constexpr double kSquareWithin_deg = 10.0;
constexpr std::size_t kFewestFrames = 8;

/// The cycles; else stretches of half a second.
std::vector<Cycle> stretchesOf(const OwnRulerInput& input) {
  if (input.cycles.size() >= 2) return input.cycles;
  std::vector<Cycle> out;
  const double end = input.length_px.t_s.back();
  for (double t = input.length_px.t_s.front(); t + 0.5 * kUsualStretch_s <= end; t += kUsualStretch_s)
    out.push_back({t, t + kUsualStretch_s});
  return out;
}

}  // namespace

double ownRulerRelativeU95(double length_mm, double lengthU95_mm, double length_px, double swing_deg) {
  const double askew = std::max(kSquareWithin_deg - swing_deg, 0.0) / kDegreesPerRadian;
  return std::hypot(lengthU95_mm / length_mm, std::sqrt(2.0) * kMarks_px / length_px, 1.0 - std::cos(askew));
}

Result<OwnRuler> ownRuler(const OwnRulerInput& input) {
  const Series& length = input.length_px;
  if (length.size() < kFewestFrames)
    return failure(ErrorCode::Unsupported, "too few frames show nose and tail to take the lure for a ruler");
  const std::vector<Cycle> stretches = stretchesOf(input);
  const double noise = frameNoise(length);
  std::vector<double> longest;
  for (const Cycle& stretch : stretches) {
    const Series smooth =
        runningMean(length.between(stretch.from_s, stretch.to_s), kSmoothOf * stretch.length_s());
    if (smooth.size() < 3) continue;
    longest.push_back(*std::max_element(smooth.y.begin(), smooth.y.end()) - kNoiseAdds * noise);
  }
  if (longest.empty())
    return failure(ErrorCode::Unsupported, "the view is too short to take the lure for a ruler");
  const double whole = median(longest);
  OwnRuler out;
  out.scale.value = whole / input.length_mm;
  const double unsure = ownRulerRelativeU95(input.length_mm, input.lengthU95_mm, whole, input.swing_deg);
  const double known = input.lengthU95_mm / input.length_mm;
  const double marks = std::sqrt(2.0) * kMarks_px / whole;
  const double askew = std::sqrt(std::max(0.0, unsure * unsure - known * known - marks * marks));
  out.scale.setUncertainty({{UncertaintySource::Scale, known * out.scale.value},
                            {UncertaintySource::Marks, marks * out.scale.value},
                            {UncertaintySource::ViewingAngle, askew * out.scale.value}});
  out.scale.n = static_cast<double>(longest.size());
  out.scale.grade = gradeOf(out.scale.value, out.scale.u95);
  return out;
}

}  // namespace fin
