// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/still.h"

#include <fmt/format.h>
#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/readings/body_angle.h"
#include "core/signals/series.h"

namespace fin {
namespace {

constexpr int kStations = 41;
constexpr double kEnd = 0.1;
constexpr double kSideU95_px = 0.5;
constexpr double kHookU95_px = 1.0;
constexpr double kRelativeU95 = 0.02;

/// Where the outline's sides lie across a station: the outermost of each.
std::optional<double> middleAt(const std::vector<std::vector<PixelPoint>>& rims, double station) {
  double least = 1e300;
  double most = -1e300;
  for (const auto& rim : rims) {
    for (std::size_t i = 0; i < rim.size(); ++i) {
      const PixelPoint& a = rim[i];
      const PixelPoint& b = rim[(i + 1) % rim.size()];
      if ((a.x_px < station) == (b.x_px < station)) continue;
      const double across = a.y_px + (b.y_px - a.y_px) * (station - a.x_px) / (b.x_px - a.x_px);
      least = std::min(least, across);
      most = std::max(most, across);
    }
  }
  return most > least ? std::optional(0.5 * (least + most)) : std::nullopt;
}

/// Of the body's middle line: its length and how far it strays from its chord.
double bendOf(const BodyMiddle& middle) {
  constexpr int kSteps = 200;
  const double from = middle.at(0.0);
  const double rise = middle.at(1.0) - from;
  double length = 0.0;
  double farthest = 0.0;
  for (int i = 1; i <= kSteps; ++i) {
    const double share = static_cast<double>(i) / kSteps;
    const double before = static_cast<double>(i - 1) / kSteps;
    length += std::hypot(share - before, middle.at(share) - middle.at(before));
    farthest = std::max(farthest, std::abs(middle.at(share) - from - rise * share) / std::hypot(1.0, rise));
  }
  return farthest / length;
}

/// In the frame of the body: x from tail (0) to nose (1), y across.
PixelPoint inBody(PixelPoint at, PixelPoint nose, PixelPoint tail) {
  const PixelPoint axis = nose - tail;
  const double squared = axis.x_px * axis.x_px + axis.y_px * axis.y_px;
  const PixelPoint d = at - tail;
  return {(d.x_px * axis.x_px + d.y_px * axis.y_px) / squared,
          (d.y_px * axis.x_px - d.x_px * axis.y_px) / squared};
}

const MarkSample* seenIn(const Track& track, MarkName name, std::size_t i) {
  const MarkTrack* mark = track.find(name);
  return mark != nullptr && mark->samples[i].seen ? &mark->samples[i] : nullptr;
}

Estimate medianOf(const std::vector<double>& values, double ownU95, double rimU95) {
  Estimate out{.value = median(values), .n = static_cast<double>(values.size())};
  out.setUncertainty({{UncertaintySource::OutlineEdge, rimU95},
                      {UncertaintySource::Marks, std::hypot(ownU95, kRelativeU95 * out.value)},
                      {UncertaintySource::Scatter, values.size() > 1 ? medianU95(values) : 0.0}});
  out.grade = gradeOf(out.value, out.u95);
  return out;
}

}  // namespace

double BodyMiddle::at(double share) const {
  return cubic[0] + share * (cubic[1] + share * (cubic[2] + share * cubic[3]));
}

std::optional<BodyMiddle> bodyMiddle(const std::vector<std::vector<PixelPoint>>& contours, PixelPoint nose,
                                     PixelPoint tail) {
  std::vector<std::vector<PixelPoint>> rims = contours;
  for (auto& rim : rims) {
    for (PixelPoint& at : rim) at = inBody(at, nose, tail);
  }
  std::vector<double> stations, middles;
  for (int i = 0; i < kStations; ++i) {
    const double share = static_cast<double>(i) / (kStations - 1);
    if (share < kEnd - 1e-9 || share > 1.0 - kEnd + 1e-9) continue;
    const auto middle = middleAt(rims, share);
    if (!middle) return std::nullopt;
    stations.push_back(share);
    middles.push_back(*middle);
  }
  const auto n = static_cast<Eigen::Index>(stations.size());
  Eigen::MatrixXd powers(n, 4);
  Eigen::VectorXd across(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const double share = stations[static_cast<std::size_t>(i)];
    powers.row(i) << 1.0, share, share * share, share * share * share;
    across(i) = middles[static_cast<std::size_t>(i)];
  }
  const Eigen::Vector4d fit = powers.colPivHouseholderQr().solve(across);
  BodyMiddle out{{fit(0), fit(1), fit(2), fit(3)}};
  out.bend = bendOf(out);
  return out;
}

void readStill(const Track& track, const Rectification& picture, ReadingSheet& sheet) {
  std::vector<double> bends, hooks, lengths;
  for (std::size_t i = 0; i < track.outline.size(); ++i) {
    const MarkSample* nose = seenIn(track, MarkName::Nose, i);
    const MarkSample* tail = seenIn(track, MarkName::Tail, i);
    if (nose == nullptr || tail == nullptr || !track.outline[i].seen || !track.outline[i].whole) continue;
    auto contours = track.outline[i].contours;
    for (auto& rim : contours) {
      for (PixelPoint& at : rim) at = picture.flat(at);
    }
    const PixelPoint noseAt = picture.flat(nose->at);
    const PixelPoint tailAt = picture.flat(tail->at);
    const auto middle = bodyMiddle(contours, noseAt, tailAt);
    if (!middle) continue;
    bends.push_back(100.0 * middle->bend);
    lengths.push_back(length(noseAt - tailAt).value());
    if (const MarkSample* hook = seenIn(track, MarkName::Hook, i)) {
      const PixelPoint at = inBody(picture.flat(hook->at), noseAt, tailAt);
      hooks.push_back(100.0 * std::abs(at.y_px - middle->at(at.x_px)));
    }
  }
  if (bends.empty()) {
    for (const ReadingId id : {ReadingId::BodyBend, ReadingId::HookOffset})
      sheet.refuse(id, "no frame shows the whole outline with nose and tail");
    return;
  }
  const double rim = 100.0 * kSideU95_px / median(lengths);
  Estimate bend = medianOf(bends, 0.0, rim);
  // An arc with this rise over its chord.
  bend.notes.push_back(
      fmt::format("as an arc it turns by {:.0f}°", 4.0 * std::atan(2.0e-2 * bend.value) * kDegreesPerRadian));
  sheet.give(ReadingId::BodyBend, bend);
  if (!hooks.empty())
    sheet.give(ReadingId::HookOffset, medianOf(hooks, 100.0 * kHookU95_px / median(lengths), rim));
}

}  // namespace fin
