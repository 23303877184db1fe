// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/control_drift.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>

namespace fin {
namespace {

constexpr std::size_t kFewest = 3;
constexpr double kHourOfDrift_s = 3600.0;

}  // namespace

Result<ControlDrift> driftOf(const std::vector<ComparedPass>& passes, ReadingId reading) {
  std::vector<ComparedPass> control;
  std::copy_if(passes.begin(), passes.end(), std::back_inserter(control),
               [](const ComparedPass& p) { return p.control && p.made_s; });
  const auto speed_mm_s = commonSpeed(control, reading);
  std::vector<std::pair<double, double>> points;  // hours, value
  for (const ComparedPass& pass : control) {
    const auto value = numberIn(pass.readings, reading);
    if (value && !pass.pulledOtherwise(speed_mm_s))
      points.emplace_back(*pass.made_s / kHourOfDrift_s, *value);
  }
  ControlDrift out{.passes = points.size()};
  if (points.size() < kFewest) {
    return failure(
        ErrorCode::BadRequest,
        "the control rig has too few passes with this reading: three at different times are needed");
  }
  const auto n = static_cast<double>(points.size());
  double meanValue = 0.0;
  for (const auto& [hour, value] : points) {
    out.middle_h += hour / n;
    meanValue += value / n;
  }
  double spread = 0.0;
  double along = 0.0;
  for (const auto& [hour, value] : points) {
    spread += (hour - out.middle_h) * (hour - out.middle_h);
    along += (hour - out.middle_h) * (value - meanValue);
  }
  if (!(spread > 0.0))
    return failure(ErrorCode::BadRequest, "all passes of the control rig were made at one time");
  out.perHour = along / spread;
  double rest = 0.0;
  for (const auto& [hour, value] : points) {
    const double off = value - meanValue - out.perHour * (hour - out.middle_h);
    rest += off * off;
  }
  const boost::math::students_t t(n - 2.0);
  out.u95 = boost::math::quantile(t, 0.975) * std::sqrt(rest / (n - 2.0) / spread);
  out.seen = std::abs(out.perHour) > out.u95;
  return out;
}

}  // namespace fin
