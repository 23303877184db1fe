// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/calibration.h"

#include <cmath>
#include <vector>

#include "core/signals/series.h"

namespace fin {
namespace {

constexpr double kNearWhole = 0.06;  ///< relative; one rig wobbles alike in passes at one pace
constexpr int kMostFactor = 40;

}  // namespace

void applyCalibration(PassRequest& request, const Calibration& calibration) {
  setByField(request, calibration.byField);
  static_cast<Calibration&>(request) = calibration;
}

void setByField(PassRequest& request, bool byField) {
  if (request.byField == byField) return;
  request.byField = byField;
  if (request.captureRate) request.captureRate = *request.captureRate * (byField ? 2.0 : 0.5);
  const auto moved = [byField](std::size_t frame) { return byField ? 2 * frame : frame / 2; };
  // The last of two fields, or the frame that holds it.
  const auto movedLast = [byField](std::size_t frame) { return byField ? 2 * frame + 1 : frame / 2; };
  request.firstFrame = moved(request.firstFrame);
  if (request.lastFrame) request.lastFrame = movedLast(*request.lastFrame);
  for (MarkSeed& seed : request.marks) seed.frame = moved(seed.frame);
  if (request.outline) request.outline->frame = moved(request.outline->frame);
  for (HiddenRegion& h : request.hidden) {
    h.firstFrame = moved(h.firstFrame);
    h.lastFrame = movedLast(h.lastFrame);
  }
  for (FouledStretch& f : request.fouled) f.frames = {moved(f.frames.first), movedLast(f.frames.last)};
}

std::optional<WholeFactor> wholeFactor(double value, std::span<const double> peers) {
  if (peers.empty() || !(value > 0.0)) return std::nullopt;
  const double usual = median({peers.begin(), peers.end()});
  if (!(usual > 0.0)) return std::nullopt;
  const double ratio = std::max(usual / value, value / usual);
  const double whole = std::round(ratio);
  if (whole < 2.0 || whole > kMostFactor || std::abs(ratio / whole - 1.0) > kNearWhole) return std::nullopt;
  return WholeFactor{static_cast<int>(whole), value < usual};
}

}  // namespace fin
