// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/retrieve.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/signals/line_fit.h"
#include "core/signals/rhythm.h"
#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kFewestCycles = 2.0;
constexpr double kEnoughCycles = 5.0;
constexpr double kAliasedFrom = 0.4;  ///< of the capture rate
constexpr double kCoarseFrom = 0.2;
constexpr double kHuntingFrom_percent = 8.0;
constexpr double kBackgroundU95 = 0.01;  ///< share of the speed: the background's plane is known no better
constexpr double kChanceAllowed = 1e-4;
constexpr double kLeastSwing_px = 0.5;  ///< side to side at the body's end: less is the follower's own noise
constexpr double kMedianFactor = 1.2533;  ///< standard error of a median over that of a mean, normal spread
constexpr double kMarkPlace_px = kMarkPlaceU95.value();

const char* const kWobbleNames[] = {"wobble_frequency", "wobble_angle", "tail_sweep", "strouhal",
                                    "cycle_variation"};

void refuseWobble(ReadingSheet& sheet, const std::string& why) {
  for (const char* name : kWobbleNames) sheet.refuse(name, why);
}

void readTravelSpeed(const PassTraces& traces, ReadingSheet& sheet) {
  if (!traces.againstTank) {
    sheet.refuse("travel_speed",
                 traces.backgroundSeen > 0.0
                     ? "too little of the background was seen to tell how the camera moved"
                     : "the camera moves along: let the background be followed to tell the speed");
    return;
  }
  const auto line = fitLine(traces.alongCentre);
  if (!line) {
    sheet.refuse("travel_speed", line.error().message + "; a longer run in view is needed");
    return;
  }
  Estimate e;
  e.value = line->slope;
  const double ends = std::sqrt(2.0) * kMarkPlace_px * traces.unitPerPixel / traces.alongCentre.span_s();
  const double behind = traces.movingCamera ? kBackgroundU95 * line->slope : 0.0;
  e.u95 = std::hypot(std::hypot(line->slopeU95, line->slope * traces.scaleRelativeU95), ends, behind);
  e.n = static_cast<double>(line->n);
  e.grade = gradeOf(e.value, e.u95);
  sheet.give("travel_speed", e);
}

/// The yaw's rhythm over the whole run.
Result<Rhythm> findWobble(const PassTraces& traces) {
  const double span = traces.axis.span_s();
  return findRhythm(traces.axis, span > 0.0 ? 1.0 / span : 1.0, 0.48 * traces.frameRate_Hz);
}

/// Why this is no wobble that could be read; empty where it is one.
std::string doubt(const PassTraces& traces, const Rhythm& wobble) {
  const double swing_px =
      2.0 * wobble.fit.amplitudes.front() / kDegreesPerRadian * traces.bodyLength / traces.unitPerPixel;
  if (wobble.fit.chance > kChanceAllowed || swing_px < kLeastSwing_px) {
    return "no steady wobble stands out; film closer, or pull faster if it does not wobble yet";
  }
  if (wobble.fit.frequency_Hz > kAliasedFrom * traces.frameRate_Hz) {
    return fmt::format("{:.1f} Hz is too fast for {:.0f} frames per second; film at a higher rate",
                       wobble.fit.frequency_Hz, traces.frameRate_Hz);
  }
  if (static_cast<double>(wobble.cycles.size()) < kFewestCycles) {
    return "fewer than 2 whole wobbles are in view; film a longer stretch";
  }
  return {};
}

std::vector<double> lengthsOf(const std::vector<Cycle>& cycles) {
  std::vector<double> out;
  for (const Cycle& c : cycles) out.push_back(c.length_s());
  return out;
}

/// Grade and notes that every reading of a rhythm shares.
void judgeRhythm(const PassTraces& traces, const Rhythm& wobble, Estimate& e) {
  e.n = static_cast<double>(wobble.cycles.size());
  e.grade = gradeOf(e.value, e.u95);
  if (e.n < kEnoughCycles) {
    e.grade = Grade::Poor;
    e.notes.push_back(fmt::format("only {:.0f} whole wobbles in view; 5 or more are wanted", e.n));
  }
  if (wobble.fit.frequency_Hz > kCoarseFrom * traces.frameRate_Hz) {
    e.grade = worse(e.grade, Grade::Fair);
    e.notes.push_back("fewer than 5 frames to a wobble: a higher capture rate would show more");
  }
}

double variation_percent(const std::vector<double>& lengths) {
  const double middle = median(lengths);
  return middle > 0.0 ? 100.0 * robustSpread(lengths) / middle : 0.0;
}

void readFrequency(const PassTraces& traces, const Rhythm& wobble, ReadingSheet& sheet) {
  const std::vector<double> lengths = lengthsOf(wobble.cycles);
  const auto n = static_cast<double>(lengths.size());
  const double variation = variation_percent(lengths);
  Estimate e;
  e.value = wobble.fit.frequency_Hz;
  // Cycles of unequal length make the rate itself uncertain, however well each is seen.
  const double jitter = e.value * variation / 100.0 / n;
  e.u95 = 1.96 * std::hypot(wobble.fit.frequencySd_Hz, jitter);
  if (variation > kHuntingFrom_percent) {
    const double total = std::accumulate(lengths.begin(), lengths.end(), 0.0);
    e.value = n / total;
    e.u95 = 1.96 * e.value * variation / 100.0 / std::sqrt(n);
    e.notes.push_back(
        fmt::format("it hunts (cycles vary by {:.0f} %): the mean rate of whole wobbles", variation));
  }
  judgeRhythm(traces, wobble, e);
  sheet.give("wobble_frequency", e);

  Estimate v;
  v.value = variation;
  v.u95 = 1.96 * std::max(variation, 0.3) * 1.2 / std::sqrt(2.0 * n);
  judgeRhythm(traces, wobble, v);
  v.grade = n >= 3.0 * kEnoughCycles ? Grade::Good : n >= kEnoughCycles ? Grade::Fair : Grade::Poor;
  sheet.give("cycle_variation", v);
}

/// Median over cycles of the swing from side to side; `floor` is the part that no averaging removes.
Estimate medianSwing(const PassTraces& traces, const Rhythm& wobble, const Series& series, double floor) {
  const std::vector<double> swings = peakToPeak(series, wobble.cycles);
  Estimate e;
  e.value = median(swings);
  const double spread =
      1.96 * kMedianFactor * robustSpread(swings) / std::sqrt(static_cast<double>(swings.size()));
  e.u95 = std::hypot(spread, floor);
  judgeRhythm(traces, wobble, e);
  return e;
}

void readSwings(const PassTraces& traces, const Rhythm& wobble, ReadingSheet& sheet) {
  const double place = kMarkPlace_px * traces.unitPerPixel;
  const double turn = std::sqrt(2.0) * place / traces.bodyLength * kDegreesPerRadian;
  sheet.give("wobble_angle", medianSwing(traces, wobble, wobble.detrended, turn));

  const Series tail = withoutRunningMean(traces.acrossTail, 1.0 / wobble.fit.frequency_Hz);
  Estimate sweep = medianSwing(traces, wobble, tail, place);
  sweep.u95 = std::hypot(sweep.u95, sweep.value * traces.scaleRelativeU95);
  sheet.give("tail_sweep", sweep);
}

void readStrouhal(ReadingSheet& sheet) {
  const Estimate* f = sheet.estimate("wobble_frequency");
  const Estimate* a = sheet.estimate("tail_sweep");
  const Estimate* u = sheet.estimate("travel_speed");
  if (f == nullptr || a == nullptr || u == nullptr || std::abs(u->value) <= u->u95) {
    sheet.refuse("strouhal", "it needs wobble, tail sweep and a travel speed that is more than nothing");
    return;
  }
  Estimate e;
  e.value = f->value * a->value / u->value;
  e.u95 = std::abs(e.value) * std::hypot(f->u95 / f->value, a->u95 / a->value, u->u95 / u->value);
  e.n = f->n;
  e.grade = worse(worse(f->grade, a->grade), u->grade);
  sheet.give("strouhal", e);
}

}  // namespace

void readRetrieve(const PassTraces& traces, View view, ReadingSheet& sheet) {
  if (traces.frames() == 0) return;
  readTravelSpeed(traces, sheet);
  if (view != View::Top) return;
  const auto wobble = findWobble(traces);
  if (!wobble) {
    refuseWobble(sheet, wobble.error().message + "; film a longer stretch");
    return;
  }
  if (const std::string why = doubt(traces, *wobble); !why.empty()) {
    refuseWobble(sheet, why);
    return;
  }
  readFrequency(traces, *wobble, sheet);
  readSwings(traces, *wobble, sheet);
  readStrouhal(sheet);
}

}  // namespace fin
