// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/retrieve.h"

#include <fmt/format.h>
#include <cmath>

#include "core/readings/rhythm_readings.h"
#include "core/signals/block_mean.h"
#include "core/signals/line_fit.h"
#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kBackgroundU95 = 0.01;  ///< share of the speed: the background's plane is known no better
constexpr double kMedianOver_s = 3.0;

const ReadingId kWobbleNames[] = {ReadingId::WobbleFrequency, ReadingId::WobbleAngle, ReadingId::TailSweep,
                                  ReadingId::Strouhal, ReadingId::CycleVariation};

void readTravelSpeed(const PassTraces& traces, ReadingSheet& sheet) {
  if (!traces.againstTank) {
    sheet.refuse(ReadingId::TravelSpeed,
                 traces.backgroundSeen > 0.0
                     ? "too little of the background was seen to tell how the camera moved"
                     : "the camera moves along: let the background be followed to tell the speed");
    return;
  }
  const auto line = fitLine(traces.alongCentre);
  if (!line) {
    sheet.refuse(ReadingId::TravelSpeed, line.error().message + "; a longer run in view is needed");
    return;
  }
  Estimate e;
  e.value = line->slope;
  const double ends = placeDifferenceU95(traces) / traces.alongCentre.span_s();
  const double behind = traces.movingCamera ? kBackgroundU95 * line->slope : 0.0;
  e.setUncertainty({{UncertaintySource::Scatter, line->slopeU95},
                    {UncertaintySource::Scale, line->slope * traces.scaleRelativeU95},
                    {UncertaintySource::Marks, ends},
                    {UncertaintySource::Background, behind}});
  e.n = static_cast<double>(line->n);
  e.grade = gradeOf(e.value, e.u95);
  sheet.give(ReadingId::TravelSpeed, e);
  const TimeSpan span{traces.alongCentre.t_s.front(), traces.alongCentre.t_s.back()};
  sheet.evidence().line = FittedLine{span, line->at(span.from_s), line->at(span.to_s)};
}

/// Rate, angle and tail sweep of the wobble, and how even it is.
void readWobble(const PassTraces& traces, ReadingSheet& sheet) {
  const Swing body{"wobble", traces.bodyLength, traces.unitPerPixel, traces.frameRate_Hz};
  const auto wobble = findSwinging(traces.axis, body);
  if (!wobble) {
    for (const ReadingId id : kWobbleNames) sheet.refuse(id, wobble.error().message);
    return;
  }
  sheet.give(ReadingId::WobbleFrequency, rateOf(*wobble, body));
  for (const Cycle& c : wobble->cycles) sheet.evidence().cycles.push_back({c.from_s, c.to_s});
  sheet.give(ReadingId::CycleVariation, variationOf(*wobble, body));
  sheet.give(ReadingId::WobbleAngle, angleOf(*wobble, body));
  const double place = kMarkMoveU95.value() * traces.unitPerPixel;
  const Series tail = withoutRunningMean(traces.acrossTail, 1.0 / wobble->fit.frequency_Hz);
  Estimate sweep = medianSwing(*wobble, tail, body, place);
  sweep.alsoUnsureBy({UncertaintySource::Scale, sweep.value * traces.scaleRelativeU95});
  sheet.give(ReadingId::TailSweep, sweep);
}

/// The tail's kick, where a tip was followed. In a view that shows no wobble it also tells how even the
/// action is.
void readKick(const PassTraces& traces, View view, ReadingSheet& sheet) {
  if (traces.kick.empty()) return;
  const Swing tip = kickOf(traces);
  const auto kick = findSwinging(traces.kick, tip);
  if (!kick) {
    for (const ReadingId id : {ReadingId::KickFrequency, ReadingId::KickAngle})
      sheet.refuse(id, kick.error().message);
    return;
  }
  sheet.give(ReadingId::KickFrequency, rateOf(*kick, tip));
  if (sheet.evidence().cycles.empty()) {
    for (const Cycle& c : kick->cycles) sheet.evidence().cycles.push_back({c.from_s, c.to_s});
  }
  sheet.give(ReadingId::KickAngle, angleOf(*kick, tip));
  if (view != View::Top || sheet.estimate(ReadingId::CycleVariation) == nullptr)
    sheet.give(ReadingId::CycleVariation, variationOf(*kick, tip));
}

/// Depth under the waterline, and whether it rises.
void readDepth(const PassTraces& traces, ReadingSheet& sheet) {
  constexpr std::size_t kBlocks = 8;
  if (const auto line = fitLine(traces.upCentre)) {
    Estimate rise;
    rise.value = line->slope;
    const double ends = placeDifferenceU95(traces) / traces.upCentre.span_s();
    const Estimate* along = sheet.estimate(ReadingId::TravelSpeed);
    // A plumb line that leans turns travel into rise.
    const double leaning =
        (along != nullptr ? std::abs(along->value) : 0.0) * kPlumbU95_deg / kDegreesPerRadian;
    rise.setUncertainty({{UncertaintySource::Scatter, line->slopeU95},
                         {UncertaintySource::Scale, line->slope * traces.scaleRelativeU95},
                         {UncertaintySource::Marks, ends},
                         {UncertaintySource::Plumb, leaning}});
    rise.n = static_cast<double>(line->n);
    rise.grade = rise.u95 < 2.0 ? Grade::Good : rise.u95 < 8.0 ? Grade::Fair : Grade::Poor;
    sheet.give(ReadingId::RiseRate, rise);
  }
  if (traces.depth.empty()) return;
  // A lure that rises steadily has a mean depth all the same: only what is left beside its line is scatter.
  Series level = traces.depth;
  if (const auto line = fitLine(traces.depth)) {
    for (std::size_t i = 0; i < level.size(); ++i) level.y[i] -= line->at(level.t_s[i]) - line->meanValue;
  }
  const Mean mean = blockMean(level, kBlocks);
  Estimate depth;
  depth.value = mean.value;
  const double line_mm = placeDifferenceU95(traces);
  depth.setUncertainty({{UncertaintySource::Scatter, mean.u95},
                        {UncertaintySource::Scale, mean.value * traces.scaleRelativeU95},
                        {UncertaintySource::Marks, line_mm}});
  depth.n = static_cast<double>(traces.depth.size());
  depth.grade = gradeOf(depth.value, depth.u95);
  sheet.give(ReadingId::RunningDepth, depth);
}

void readStrouhal(ReadingSheet& sheet) {
  const Estimate* f = sheet.estimate(ReadingId::WobbleFrequency);
  const Estimate* a = sheet.estimate(ReadingId::TailSweep);
  const Estimate* u = sheet.estimate(ReadingId::TravelSpeed);
  if (f == nullptr || a == nullptr || u == nullptr || std::abs(u->value) <= u->u95) {
    sheet.refuse(ReadingId::Strouhal,
                 "it needs wobble, tail sweep and a travel speed that is more than nothing");
    return;
  }
  Estimate e;
  e.value = f->value * a->value / u->value;
  e.u95 = std::abs(e.value) * std::hypot(f->u95 / f->value, a->u95 / a->value, u->u95 / u->value);
  e.n = f->n;
  e.grade = worse(worse(f->grade, a->grade), u->grade);
  sheet.give(ReadingId::Strouhal, e);
}

/// When a sway, averaged over one cycle, departed farthest from its own running median, each time that it did
/// so by more than `least` and came back.
std::vector<double> departures(const Series& sway, double cycle_s, double least) {
  const Series mean = runningMean(sway, cycle_s);
  std::vector<double> out;
  int side = 0;  // of the one that is on
  double farthest = 0.0;
  double at_s = 0.0;
  for (std::size_t i = 0; i < mean.size(); ++i) {
    const double t = mean.t_s[i];
    const double away = mean.y[i] - median(mean.between(t - 0.5 * kMedianOver_s, t + 0.5 * kMedianOver_s).y);
    if (side == 0 && std::abs(away) > least) {
      side = away > 0.0 ? 1 : -1;
      farthest = 0.0;
    }
    if (side != 0 && away * side > farthest) {
      farthest = away * side;
      at_s = t;
    }
    if (side != 0 && away * side < 0.5 * least) {
      out.push_back(at_s);
      side = 0;
    }
  }
  return out;
}

/// How often it breaks out to the side, where the wobble says what a side is.
void readBreakouts(const PassTraces& traces, ReadingSheet& sheet) {
  const Estimate* rate = sheet.estimate(ReadingId::WobbleFrequency);
  const Estimate* sweep = sheet.estimate(ReadingId::TailSweep);
  if (rate == nullptr || sweep == nullptr) {
    sheet.refuse(ReadingId::Breakouts, "it needs the wobble and its tail sweep to tell a breakout by");
    return;
  }
  sheet.evidence().breakouts_s = departures(traces.upCentre, 1.0 / rate->value, 0.5 * sweep->value);
  const auto count = static_cast<double>(sheet.evidence().breakouts_s.size());
  const double span = traces.upCentre.span_s();
  Estimate e;
  e.value = 10.0 * count / span;
  e.u95 = 10.0 * std::max(1.0, 0.5 * std::sqrt(count)) / span;
  e.n = count;
  e.grade = span >= kMedianOver_s ? Grade::Fair : Grade::Poor;
  e.notes.push_back(fmt::format("{:.0f} in {:.1f} s", count, span));
  sheet.give(ReadingId::Breakouts, e);
}

}  // namespace

void readFlash(const Series& flash, ReadingSheet& sheet) {
  const double spacing = flash.spacing_s();
  if (flash.size() < 8 || spacing <= 0.0) return;
  const Swing body{"flash", 1.0, 1.0 / kDegreesPerRadian, 1.0 / spacing};
  const auto rhythm = findSwinging(flash, body);
  if (!rhythm) {
    sheet.refuse(ReadingId::FlashRate, rhythm.error().message);
    return;
  }
  sheet.give(ReadingId::FlashRate, rateOf(*rhythm, body));
}

void readRetrieve(const PassTraces& traces, View view, ReadingSheet& sheet) {
  if (traces.frames() == 0) return;
  readTravelSpeed(traces, sheet);
  if (view == View::Top) {
    readWobble(traces, sheet);
    readStrouhal(sheet);
    readBreakouts(traces, sheet);
  }
  readKick(traces, view, sheet);
  if (view == View::Side && traces.inMillimetres) readDepth(traces, sheet);
}

}  // namespace fin
