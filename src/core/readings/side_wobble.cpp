// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/side_wobble.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/readings/rhythm_readings.h"
#include "core/readings/yaw_fit.h"
#include "core/signals/line_power.h"
#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kSlowest_Hz = 0.8;
constexpr double kFastestOfRate = 0.2;  ///< of the frame rate: five frames to a pulse
constexpr double kFastest_Hz = 20.0;
constexpr double kOfBest = 0.88;        ///< share of the best comb that the highest rate must explain
constexpr double kLineExplains = 0.10;  ///< of a length freed of its drift, for a pulse to stand out
constexpr double kChance = 1e-4;
constexpr double kHalfChance = 0.002;
constexpr double kOddChance = 0.01;
constexpr double kFeigned_px = 0.2;  ///< by pose errors of the marks
constexpr double kSurelyAskew_rad = 10.0 * std::numbers::pi / 180.0;
constexpr double kCrosses_rad = 10.0 * std::numbers::pi / 180.0;
constexpr double kSecondLine = 0.5;  ///< of the first, at twice the pulse
constexpr double kWaveForm = 0.05;   ///< of the angle: wave form and uneven cycles
constexpr double kMostUnsure = 0.25;
constexpr double kPhaseWalks = 0.4;
constexpr double kUnevenBySight = 0.15;  ///< of the cycles' variation
constexpr double kFewestPulses = 4.0;
constexpr double kGridPerWidth = 6.0;

const ReadingId kSideNames[] = {ReadingId::WobbleFrequency, ReadingId::WobbleAngle,
                                ReadingId::CycleVariation};

void refuseAll(ReadingSheet& sheet, const std::string& why) {
  for (const ReadingId id : kSideNames) sheet.refuse(id, why);
}

/// The sine of the angle of sight at the times of a cue, where the lure crosses; empty where it does not.
std::vector<double> sidesOf(const SightTrace& trace, const Series& cue) {
  std::vector<double> out;
  if (trace.sightRange_rad() < kCrosses_rad) return out;
  std::size_t at = 0;
  for (const double t : cue.t_s) {
    while (at + 1 < trace.t_s.size() && trace.t_s[at] < t) ++at;
    out.push_back(std::sin(trace.sight_rad[at]));
  }
  return out;
}

/// The rate at which it looks short: the highest whose lines at one and two times explain nearly as much as
/// the best. What heaves beside the length may heave for other reasons, and does not count here.
std::optional<double> pulseOf(const SightTrace& trace) {
  const Series length = withoutRunningMean(trace.cues.front().px, 1.0 / kSlowest_Hz);
  const std::vector<double> sides = sidesOf(trace, length);
  const double span = trace.t_s.back() - trace.t_s.front();
  const double highest = std::min(kFastest_Hz, kFastestOfRate * trace.frameRate_Hz);
  std::vector<double> rates;
  std::vector<double> power;
  for (double f = std::max(kSlowest_Hz, 2.0 / span); f <= highest; f += 1.0 / span / kGridPerWidth) {
    const double lines[] = {f, 2.0 * f};
    rates.push_back(f);
    power.push_back(explainedBy(length, lines, sides));
  }
  if (power.empty()) return std::nullopt;
  const double best = *std::max_element(power.begin(), power.end());
  if (best < kLineExplains) return std::nullopt;
  std::optional<double> out;
  for (std::size_t i = 1; i + 1 < power.size(); ++i) {
    const bool hump = power[i] >= power[i - 1] && power[i] >= power[i + 1];
    if (hump && power[i] >= kOfBest * best) out = rates[i];
  }
  return out;
}

/// Which of the two a pulse is: the wobble, or half of it is.
enum class Once { Wobble, Half, Open };

/// The rhythm changes its sign where the lure passes square on: it heads askew on both sides.
bool changesSign(const SightTrace& trace, double pulse_Hz) {
  const Series px = withoutRunningMean(trace.cues.front().px, 1.0 / kSlowest_Hz);
  const std::vector<double> sides = sidesOf(trace, px);
  if (sides.empty()) return false;
  const LineTest test = testSignedLine(px, pulse_Hz, sides);
  return test.chance < kChance && test.amplitude > test.otherAmplitude;
}

Once decide(const SightTrace& trace, double pulse_Hz) {
  if (changesSign(trace, pulse_Hz)) return Once::Wobble;
  const SightView& view = trace.view;
  if (view.heading_rad && std::abs(*view.heading_rad) - view.headingU95_rad > kSurelyAskew_rad)
    return Once::Wobble;
  const Series phase = pulsePhase(trace.cues.front().px, pulse_Hz);
  const double allowed = kHalfChance / static_cast<double>(trace.cues.size());
  for (const SightCue& cue : trace.cues) {
    const LineTest half = testHalfRate(cue.px, phase);
    if (half.chance < allowed && half.amplitude > kFeigned_px) return Once::Half;
  }
  for (const SightCue& cue : trace.cues) {
    if (!cue.odd) continue;
    const LineTest line = testLine(cue.px, phase, 1.0);
    if (line.chance < kOddChance && line.amplitude > kFeigned_px) return Once::Wobble;
  }
  const LineTest first = testLine(trace.cues.front().px, phase, 1.0);
  const LineTest second = testLine(trace.cues.front().px, phase, 2.0);
  return second.amplitude >= kSecondLine * first.amplitude && second.chance < kOddChance ? Once::Wobble
                                                                                         : Once::Open;
}

std::string smallestThatShows(const SightTrace& trace) {
  // Peak to peak that is told to a quarter, by the body's length in the picture (16 cycles, marks to half a
  // pixel): square on, and askew or across the whole picture.
  constexpr double kBody_px[] = {60.0, 80.0, 120.0, 200.0};
  constexpr double kSquare_deg[] = {33.0, 28.0, 21.0, 17.0};
  constexpr double kAskew_deg[] = {9.0, 7.0, 6.0, 6.0};
  const double body = median(trace.length_px);
  const bool askew = trace.view.heading_rad || trace.sightRange_rad() >= 4.0 * kCrosses_rad;
  const double* table = askew ? kAskew_deg : kSquare_deg;
  std::size_t i = 0;
  while (i + 2 < 4 && kBody_px[i + 1] < body) ++i;
  const double share = std::clamp((body - kBody_px[i]) / (kBody_px[i + 1] - kBody_px[i]), 0.0, 1.0);
  return fmt::format(
      "a body of {:.0f} px shows a wobble from about {:.0f}° on; film it nearer, or 20 to 30° askew", body,
      table[i] + share * (table[i + 1] - table[i]));
}

}  // namespace

void readSideWobble(const SightTrace& trace, ReadingSheet& sheet) {
  if (trace.frames() < 16 || trace.cues.empty()) return;
  const auto pulse = pulseOf(trace);
  const double span = trace.t_s.back() - trace.t_s.front();
  if (!pulse || *pulse * span < kFewestPulses)
    return refuseAll(sheet, "no steady shortening stands out; " + smallestThatShows(trace));
  const Once once = decide(trace, *pulse);
  if (once == Once::Open) {
    return refuseAll(
        sheet,
        fmt::format("seen square on it shortens {1:.2f} times per second, and nothing tells whether it "
                    "does so once or twice a wobble: {0:.2f} or {1:.2f} Hz; film it 20 to 30° askew, or let "
                    "it cross the whole picture",
                    0.5 * *pulse, *pulse));
  }
  const double rate = once == Once::Half ? 0.5 * *pulse : *pulse;
  const auto fit = fitYaw(trace, rate);
  if (!fit) return refuseAll(sheet, fit.error().message);

  const Swing swing{"wobble", fit->whole_px, 1.0, trace.frameRate_Hz};
  const auto wobble = findSwinging(fit->yaw_deg, swing);
  if (!wobble) return refuseAll(sheet, wobble.error().message);
  Estimate frequency = rateOf(*wobble, swing);
  Estimate even = variationOf(*wobble, swing);
  frequency.alsoUnsureBy({UncertaintySource::ViewingAngle, kNormal95 * fit->frequencySd_Hz});
  // Cycles that stray by themselves make the phase walk: the rate over the view and that of the best single
  // sine differ by as much.
  frequency.alsoUnsureBy({UncertaintySource::Cycles, kPhaseWalks * kNormal95 * frequency.value * even.value /
                                                         100.0 / std::sqrt(std::max(frequency.n, 1.0))});
  sheet.give(ReadingId::WobbleFrequency, frequency);
  for (const Cycle& c : wobble->cycles) sheet.evidence().cycles.push_back({c.from_s, c.to_s});
  even.alsoUnsureBy({UncertaintySource::ViewingAngle, kNormal95 * fit->cycleNoise_percent});
  even.alsoUnsureBy({UncertaintySource::Cycles, kUnevenBySight * even.value});
  even.grade = worse(even.grade, Grade::Fair);
  sheet.give(ReadingId::CycleVariation, even);

  Estimate angle;
  angle.value = fit->peakToPeak_deg;
  angle.setUncertainty({{UncertaintySource::Scatter, fit->peakToPeakU95_deg},
                        {UncertaintySource::ViewingAngle, kWaveForm * angle.value}});
  if (!(angle.u95 <= kMostUnsure * angle.value))
    return sheet.refuse(ReadingId::WobbleAngle,
                        "its wobble is too small to be told from here: " + smallestThatShows(trace));
  angle.n = frequency.n;
  angle.grade = worse(gradeOf(angle.value, angle.u95), frequency.grade);
  angle.notes.push_back(
      fmt::format("told by how it looks shorter, heading {:.0f}° out of the picture's plane",
                  std::abs(fit->heading_deg)));
  sheet.give(ReadingId::WobbleAngle, angle);
}

}  // namespace fin
