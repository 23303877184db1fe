// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/course.h"

#include <algorithm>
#include <cmath>

#include "core/signals/running_mean.h"
#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kKernel_s = 1.5;
constexpr double kLineEnd_px = 1.0;
constexpr double kLowShare = 0.05;
constexpr double kHighShare = 0.95;
constexpr std::size_t kFewestCentres = 16;

struct Course {
  double slope = 0.0;
  double offset = 0.0;
  double slopeSd = 0.0;
  [[nodiscard]] double deg() const { return std::atan(slope) * kDegreesPerRadian; }
};

/// Across against along; standard error with a Bartlett kernel over `lag` samples.
Course courseOf(std::span<const double> x, std::span<const double> y, std::size_t lag) {
  const auto n = static_cast<double>(x.size());
  double mx = 0.0, my = 0.0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    mx += x[i] / n;
    my += y[i] / n;
  }
  double xx = 0.0, xy = 0.0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    xx += (x[i] - mx) * (x[i] - mx);
    xy += (x[i] - mx) * (y[i] - my);
  }
  Course out;
  if (xx <= 0.0) return out;
  out.slope = xy / xx;
  out.offset = my - out.slope * mx;
  std::vector<double> score(x.size());
  for (std::size_t i = 0; i < x.size(); ++i) score[i] = (x[i] - mx) * (y[i] - out.offset - out.slope * x[i]);
  double sum = 0.0;
  for (std::size_t k = 0; k <= std::min(lag, score.size() - 1); ++k) {
    double product = 0.0;
    for (std::size_t i = k; i < score.size(); ++i) product += score[i] * score[i - k];
    sum += (k == 0 ? 1.0 : 2.0 * (1.0 - static_cast<double>(k) / static_cast<double>(lag + 1))) * product;
  }
  out.slopeSd = std::sqrt(std::max(sum, 0.0)) / xx;
  return out;
}

}  // namespace

double courseAngle_deg(const Series& along, const Series& across) {
  return courseOf(along.y, across.y, 0).deg();
}

void readCourse(const Series& along, const Series& across, const PassTraces& traces, double line_px,
                ReadingSheet& sheet) {
  const ReadingId all[] = {ReadingId::CourseAngle, ReadingId::CourseSway, ReadingId::CourseBend};
  if (along.size() < kFewestCentres) {
    for (const ReadingId id : all) sheet.refuse(id, "too few frames show the body's way");
    return;
  }
  const double spacing = along.spacing_s();
  const auto lag = static_cast<std::size_t>(kKernel_s / std::max(spacing, 1e-6));
  const Course whole = courseOf(along.y, across.y, lag);
  const double way = std::abs(along.y.back() - along.y.front());
  const double marks = placeDifferenceU95(traces) / way * kDegreesPerRadian;
  const double line = std::sqrt(2.0) * kLineEnd_px / line_px * kDegreesPerRadian;
  const auto give = [&](ReadingId id, double value, std::vector<UncertaintyPart> parts) {
    Estimate e;
    e.value = value;
    e.setUncertainty(std::move(parts));
    e.n = static_cast<double>(along.size());
    e.grade = e.u95 < 0.5 ? Grade::Good : e.u95 < 1.5 ? Grade::Fair : Grade::Poor;
    sheet.give(id, e);
  };
  give(ReadingId::CourseAngle, whole.deg(),
       {{UncertaintySource::Scatter, kNormal95 * whole.slopeSd * kDegreesPerRadian},
        {UncertaintySource::Marks, marks},
        {UncertaintySource::Plumb, line}});

  const Estimate* wobble = sheet.estimate(ReadingId::WobbleFrequency);
  Series beside = across;
  for (std::size_t i = 0; i < beside.size(); ++i) beside.y[i] -= whole.offset + whole.slope * along.y[i];
  if (wobble != nullptr) beside = runningMean(beside, 1.0 / wobble->value);
  Estimate sway;
  const std::span<double> places(beside.y);
  sway.value = quantileOf(places, kHighShare) - quantileOf(places, kLowShare);
  // As many swings as there are spans of the kernel.
  const double swings = std::max(1.0, along.span_s() / kKernel_s);
  sway.setUncertainty({{UncertaintySource::Scatter, 0.25 * sway.value / std::sqrt(swings)},
                       {UncertaintySource::Marks, placeDifferenceU95(traces)},
                       {UncertaintySource::Scale, sway.value * traces.scaleRelativeU95}});
  sway.n = static_cast<double>(along.size());
  sway.grade = gradeOf(sway.value, sway.u95);
  sheet.give(ReadingId::CourseSway, sway);

  const std::size_t third = along.size() / 3;
  const std::span<const double> x(along.y);
  const std::span<const double> y(across.y);
  const Course first = courseOf(x.first(third), y.first(third), lag / 3);
  const Course last = courseOf(x.last(third), y.last(third), lag / 3);
  give(ReadingId::CourseBend, last.deg() - first.deg(),
       {{UncertaintySource::Scatter, kNormal95 * std::hypot(first.slopeSd, last.slopeSd) * kDegreesPerRadian},
        {UncertaintySource::Marks, 3.0 * std::sqrt(2.0) * marks}});
}

}  // namespace fin
