// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/rhythm_readings.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <numeric>

namespace fin {
namespace {

constexpr double kFewestCycles = 2.0;
constexpr double kEnoughCycles = 5.0;
constexpr double kAliasedFrom = 0.4;  ///< of the capture rate
constexpr double kCoarseFrom = 0.2;
constexpr double kFastestBait_Hz = 30.0;  ///< small blades; nothing that swims beats faster
constexpr double kHuntingFrom_percent = 8.0;
constexpr double kChanceAllowed = 1e-4;
constexpr double kLeastSwing_px = 0.5;  ///< side to side at the arm's end: less is the follower's own noise

/// Why this is no motion that could be read; empty where it is one.
std::string doubt(const Rhythm& rhythm, const Swing& swing) {
  const double swing_px =
      2.0 * rhythm.fit.amplitudes.front() / kDegreesPerRadian * swing.arm / swing.unitPerPixel;
  if (rhythm.fit.chance > kChanceAllowed || swing_px < kLeastSwing_px) {
    return fmt::format("no steady {0} stands out; film closer, or pull faster if it does not {0} yet",
                       swing.word);
  }
  if (rhythm.fit.frequency_Hz > kAliasedFrom * swing.frameRate_Hz) {
    return fmt::format("{:.1f} Hz is too fast for {:.0f} frames per second; film at a higher rate",
                       rhythm.fit.frequency_Hz, swing.frameRate_Hz);
  }
  if (static_cast<double>(rhythm.cycles.size()) < kFewestCycles) {
    return fmt::format("fewer than 2 whole {}s are in view; film a longer stretch", swing.word);
  }
  return {};
}

std::vector<double> lengthsOf(const std::vector<Cycle>& cycles) {
  std::vector<double> out;
  for (const Cycle& c : cycles) out.push_back(c.length_s());
  return out;
}

/// Grade and notes that every reading of a rhythm shares.
void judge(const Rhythm& rhythm, const Swing& swing, Estimate& e) {
  e.n = static_cast<double>(rhythm.cycles.size());
  e.grade = gradeOf(e.value, e.u95);
  if (e.n < kEnoughCycles) {
    e.grade = Grade::Poor;
    e.notes.push_back(fmt::format("only {:.0f} whole {}s in view; 5 or more are wanted", e.n, swing.word));
  }
  if (rhythm.fit.frequency_Hz > kCoarseFrom * swing.frameRate_Hz) {
    e.grade = worse(e.grade, Grade::Fair);
    e.notes.push_back(
        fmt::format("fewer than 5 frames to a {}: a higher capture rate would show more", swing.word));
  }
  // Seen once a frame, a beat and the frame rate less that beat look alike.
  const double alike_Hz = swing.frameRate_Hz - rhythm.fit.frequency_Hz;
  if (alike_Hz <= kFastestBait_Hz) {
    e.grade = worse(e.grade, Grade::Fair);
    e.notes.push_back(fmt::format(
        "at {:.0f} frames per second a {} of {:.1f} Hz would look the same; film at {:.0f} or more to tell",
        swing.frameRate_Hz, swing.word, alike_Hz, 2.0 * kFastestBait_Hz));
  }
}

/// From the downward crossings as well as from the upward ones: the same rhythm, seen twice.
double variation_percent(const Rhythm& rhythm) {
  Series upsideDown = rhythm.detrended;
  for (double& y : upsideDown.y) y = -y;
  std::vector<double> lengths = lengthsOf(rhythm.cycles);
  for (const double length : lengthsOf(wholeCycles(upsideDown, rhythm.fit))) lengths.push_back(length);
  const double middle = median(lengths);
  return middle > 0.0 ? 100.0 * robustSpread(lengths) / middle : 0.0;
}

}  // namespace

Swing kickOf(const PassTraces& traces) {
  return {"kick", traces.tipLength, traces.unitPerPixel, traces.frameRate_Hz, traces.bodyLength};
}

double perMove_deg(const Swing& swing) {
  const double own = 1.0 / swing.arm;
  const double other = swing.otherArm > 0.0 ? 1.0 / swing.otherArm : 0.0;
  // Of the swinging end, of the mark that both lines share, and of the far end of the other line.
  return std::hypot(own, own + other, other) * swing.unitPerPixel * kDegreesPerRadian;
}

Result<Rhythm> findSwinging(const Series& angle, const Swing& swing) {
  const double span = angle.span_s();
  auto rhythm = findRhythm(angle, span > 0.0 ? 1.0 / span : 1.0, 0.48 * swing.frameRate_Hz);
  if (!rhythm) return failure(ErrorCode::Unsupported, rhythm.error().message + "; film a longer stretch");
  if (const std::string why = doubt(*rhythm, swing); !why.empty())
    return failure(ErrorCode::Unsupported, why);
  return rhythm;
}

Estimate rateOf(const Rhythm& rhythm, const Swing& swing) {
  const std::vector<double> lengths = lengthsOf(rhythm.cycles);
  const auto n = static_cast<double>(lengths.size());
  const double variation = variation_percent(rhythm);
  Estimate e;
  e.value = rhythm.fit.frequency_Hz;
  // Cycles of unequal length make the rate itself uncertain, however well each is seen.
  const double jitter = e.value * variation / 100.0 / n;
  e.setUncertainty({{UncertaintySource::Scatter, kNormal95 * rhythm.fit.frequencySd_Hz},
                    {UncertaintySource::Cycles, kNormal95 * jitter}});
  if (variation > kHuntingFrom_percent) {
    const double total = std::accumulate(lengths.begin(), lengths.end(), 0.0);
    e.value = n / total;
    e.setUncertainty({{UncertaintySource::Cycles, kNormal95 * e.value * variation / 100.0 / std::sqrt(n)}});
    e.notes.push_back(
        fmt::format("it hunts (cycles vary by {:.0f} %): the mean rate of whole {}s", variation, swing.word));
  }
  judge(rhythm, swing, e);
  return e;
}

Estimate variationOf(const Rhythm& rhythm, const Swing& swing) {
  const auto n = static_cast<double>(rhythm.cycles.size());
  Estimate v;
  v.value = variation_percent(rhythm);
  v.setUncertainty(
      {{UncertaintySource::Cycles, kNormal95 * std::max(v.value, 0.3) * 1.2 / std::sqrt(2.0 * n)}});
  judge(rhythm, swing, v);
  v.grade = n >= 3.0 * kEnoughCycles ? Grade::Good : n >= kEnoughCycles ? Grade::Fair : Grade::Poor;
  return v;
}

Estimate medianSwing(const Rhythm& rhythm, const Series& series, const Swing& swing, double floor) {
  const std::vector<double> swings = peakToPeak(series, rhythm.cycles);
  Estimate e;
  e.value = median(swings);
  const double spread = medianU95(swings);
  e.setUncertainty({{UncertaintySource::Scatter, spread}, {UncertaintySource::Marks, floor}});
  judge(rhythm, swing, e);
  return e;
}

Estimate angleOf(const Rhythm& rhythm, const Swing& swing) {
  return medianSwing(rhythm, rhythm.detrended, swing, perMove_deg(swing) * kMarkMoveU95.value());
}

}  // namespace fin
