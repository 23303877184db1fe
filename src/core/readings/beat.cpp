// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/beat.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>
#include <random>

#include "core/readings/rhythm_readings.h"

namespace fin {
namespace {

constexpr int kMostBeats = 4;
constexpr double kNearly = 0.03;
constexpr double kInStep = 0.9;
constexpr double kAllowed = 0.05;
constexpr int kPairs = 400;
constexpr double kShift_cycles = 2.5;
constexpr std::size_t kFewestCycles = 15;
constexpr double kGrid_s = 0.01;
constexpr unsigned kSeed = 20;
const ReadingId kBeatNames[] = {ReadingId::BeatRatio, ReadingId::BeatCoherence, ReadingId::BeatClass};

/// Cycles since the first crossing, evenly from one to the next; none outside.
std::optional<double> cyclesAt(const std::vector<Cycle>& cycles, double t) {
  for (std::size_t i = 0; i < cycles.size(); ++i) {
    if (t >= cycles[i].from_s && t < cycles[i].to_s)
      return static_cast<double>(i) + (t - cycles[i].from_s) / cycles[i].length_s();
  }
  return std::nullopt;
}

struct Locking {
  int blade = 1;  ///< beats of the blade to `body` of the body
  int body = 1;
};

/// The nearest, and how far the ratio is from it.
struct Nearest {
  Locking lock;
  double off = 1e9;
};

Nearest nearestLocking(double ratio) {
  Nearest best;
  for (int body = 1; body <= kMostBeats; ++body) {
    for (int blade = 1; blade <= kMostBeats; ++blade) {
      const double now = std::abs(ratio * body / blade - 1.0);
      if (now < best.off && std::gcd(body, blade) == 1) best = {{blade, body}, now};
    }
  }
  return best;
}

struct Phases {
  std::vector<double> blade;
  std::vector<double> body;
};

Phases phasesOf(const Rhythm& blade, const Rhythm& body, double shift_s) {
  Phases out;
  const double end = std::min(blade.cycles.back().to_s, body.cycles.back().to_s);
  for (double t = std::max(blade.cycles.front().from_s, body.cycles.front().from_s); t < end; t += kGrid_s) {
    const auto a = cyclesAt(blade.cycles, t + shift_s);
    const auto b = cyclesAt(body.cycles, t);
    if (!a || !b) continue;
    out.blade.push_back(*a);
    out.body.push_back(*b);
  }
  return out;
}

double coherenceAt(const Rhythm& blade, const Rhythm& body, Locking lock, double shift_s) {
  const Phases phases = phasesOf(blade, body, shift_s);
  return phaseCoherence(phases.blade, phases.body, lock.body, lock.blade);
}

/// How many of the pairs that are shifted in time go together as firmly.
double shareAsFirm(const Rhythm& blade, const Rhythm& body, Locking lock, double coherence) {
  std::mt19937 random(kSeed);
  const double least = kShift_cycles / std::min(blade.fit.frequency_Hz, body.fit.frequency_Hz);
  const double span = body.cycles.back().to_s - body.cycles.front().from_s;
  if (span < 3.0 * least) return 1.0;
  std::uniform_real_distribution<double> shift(least, 0.5 * span);
  int reached = 0;
  for (int i = 0; i < kPairs; ++i) {
    const double by = (i % 2 == 0 ? 1.0 : -1.0) * shift(random);
    if (coherenceAt(blade, body, lock, by) >= coherence) ++reached;
  }
  return static_cast<double>(reached) / kPairs;
}

}  // namespace

double phaseCoherence(std::span<const double> one, std::span<const double> other, int m, int n) {
  std::complex<double> sum;
  for (std::size_t i = 0; i < one.size(); ++i)
    sum += std::polar(1.0, 2.0 * std::numbers::pi * (m * one[i] - n * other[i]));
  return one.empty() ? 0.0 : std::abs(sum) / static_cast<double>(one.size());
}

void readBeat(const Series& blade_deg, double bladeArm, const PassTraces& traces, ReadingSheet& sheet) {
  const auto refuse = [&](const std::string& why) {
    for (const ReadingId id : kBeatNames) sheet.refuse(id, why);
  };
  const Swing swing{"beat", bladeArm, traces.unitPerPixel, traces.frameRate_Hz, traces.bodyLength};
  const auto blade = findSwinging(blade_deg, swing);
  if (!blade) {
    sheet.refuse(ReadingId::BladeFrequency, blade.error().message);
    return refuse("the blade's beat is not told");
  }
  const Estimate rate = rateOf(*blade, swing);
  sheet.give(ReadingId::BladeFrequency, rate);
  const Swing whole{"wobble", traces.bodyLength, traces.unitPerPixel, traces.frameRate_Hz};
  const auto body = findSwinging(traces.axis, whole);
  const Estimate* wobble = sheet.estimate(ReadingId::WobbleFrequency);
  if (!body || wobble == nullptr)
    return refuse("the body's wobble is not told, so there is nothing to beat against");

  Estimate ratio;
  ratio.value = rate.value / wobble->value;
  ratio.u95 = ratio.value * std::hypot(rate.u95 / rate.value, wobble->u95 / wobble->value);
  ratio.n = std::min(rate.n, wobble->n);
  ratio.grade = worse(rate.grade, wobble->grade);
  sheet.give(ReadingId::BeatRatio, ratio);
  if (blade->cycles.size() < kFewestCycles || body->cycles.size() < kFewestCycles) {
    const std::string why = fmt::format("15 beats of both are needed, {} are in view",
                                        std::min(blade->cycles.size(), body->cycles.size()));
    sheet.refuse(ReadingId::BeatCoherence, why);
    return sheet.refuse(ReadingId::BeatClass, why);
  }
  const Nearest near = nearestLocking(ratio.value);
  const Locking tried = near.lock;
  Estimate coherence;
  coherence.value = coherenceAt(*blade, *body, tried, 0.0);
  coherence.n = ratio.n;
  coherence.u95 =
      std::max(0.02, kNormal95 * (1.0 - coherence.value * coherence.value) / std::sqrt(coherence.n));
  coherence.grade = Grade::Fair;
  coherence.notes.push_back(fmt::format("{}:{} of blade and body", tried.blade, tried.body));
  sheet.give(ReadingId::BeatCoherence, coherence);
  if (coherence.value < kInStep || near.off > kNearly)
    return sheet.give(ReadingId::BeatClass, "out of step", coherence.notes, coherence.n);
  const double asFirm = shareAsFirm(*blade, *body, tried, coherence.value);
  if (asFirm >= kAllowed)
    return sheet.refuse(
        ReadingId::BeatClass,
        "both beat so evenly that any two would look linked; film longer, or pull less evenly");
  sheet.give(ReadingId::BeatClass, fmt::format("in step {}:{}", tried.blade, tried.body),
             {fmt::format("{:.1f} % of pairs shifted in time go together as firmly", 100.0 * asFirm)},
             coherence.n);
}

}  // namespace fin
