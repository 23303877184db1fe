// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/feasibility.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/readings/pass_traces.h"

namespace fin {
namespace {

constexpr double kUsualBeat_Hz = 5.0;
constexpr double kUsualSwing = 1.0 / 6.0;   ///< of the body, half peak to peak, at its ends
constexpr double kUsualUnevenness = 0.015;  ///< of the length of single beats
constexpr double kMarkScatter_px = 0.3;
constexpr double kUsualBody = 0.08;  ///< of the picture's width, where no marks are placed yet
constexpr double kShownPath = 0.6;   ///< of the width that a run crosses
constexpr double kFramesABeat = 10.0;
constexpr double kBeatsWanted = 5.0;
constexpr double kLeastBody_px = 30.0;

bool isRate(const ReadingSpec& spec) {
  return spec.unit == "Hz";
}
bool isAngle(const ReadingSpec& spec) {
  return spec.unit == "deg";
}
bool isSpeed(const ReadingSpec& spec) {
  return spec.unit == "mm/s" || spec.unit == "s/m";
}

double body_px(const ClipFacts& facts) {
  return facts.bodyLength_px.value_or(kUsualBody * facts.width_px);
}

/// Cramér–Rao bound of the rate of a sinusoid (Rife & Boorstyn 1974) with the lure's own unevenness, as a 95
/// % half-width.
double rateU95_Hz(const ClipFacts& facts) {
  const double n = std::max(facts.rate_Hz * facts.length_s, 3.0);
  const double share = kMarkScatter_px / (kUsualSwing * body_px(facts));
  const double bound =
      facts.rate_Hz / (2.0 * std::numbers::pi) * share * std::sqrt(24.0 / (n * (n * n - 1.0)));
  const double beats = std::max(kUsualBeat_Hz * facts.length_s, 1.0);
  return kNormal95 * std::hypot(bound, kUsualUnevenness * kUsualBeat_Hz / beats);
}

void expectOf(const ReadingSpec& spec, const ClipFacts& facts, Feasibility& feasible) {
  const double place_px = std::numbers::sqrt2 * markPlaceU95(Pixels(body_px(facts))).value();
  const double move_px = std::numbers::sqrt2 * kMarkMoveU95.value();
  if (isRate(spec)) {
    feasible.expectedU95 = rateU95_Hz(facts);
    feasible.unit = "Hz";
  } else if (isAngle(spec)) {
    feasible.expectedU95 = move_px / body_px(facts) * kDegreesPerRadian;
    feasible.unit = "deg";
  } else if (isSpeed(spec) && facts.scaleRelativeU95) {
    feasible.expectedU95 =
        100.0 * std::hypot(*facts.scaleRelativeU95, place_px / (kShownPath * facts.width_px));
    feasible.unit = "%";
  } else if (spec.needsScale && facts.scaleRelativeU95) {
    feasible.expectedU95 =
        100.0 * std::hypot(*facts.scaleRelativeU95, move_px / (kUsualSwing * 2.0 * body_px(facts)));
    feasible.unit = "%";
  }
}

std::string betterFor(const ReadingSpec& spec, const ClipFacts& facts) {
  if (facts.bodyLength_px && *facts.bodyLength_px < kLeastBody_px)
    return "go nearer: the lure is small in the picture";
  if (!isRate(spec) && !isAngle(spec)) return {};
  if (facts.rate_Hz < kFramesABeat * kUsualBeat_Hz) {
    return "film at a higher rate: ten frames to a beat show how wide it swings";
  }
  if (facts.length_s * kUsualBeat_Hz < kBeatsWanted) return "film a longer stretch: five beats are wanted";
  return {};
}

/// The same pass with everything said that a person can say.
PassNeeds wholly(PassNeeds needs) {
  needs.marks = {MarkName::Nose,  MarkName::Tail,  MarkName::Tip, MarkName::Back,
                 MarkName::Belly, MarkName::Flank, MarkName::Mid, MarkName::Blade};
  needs.hasScale = needs.hasWaterline = true;
  return needs;
}

}  // namespace

std::vector<Feasibility> feasibilityOf(const PassNeeds& needs, const ClipFacts& facts) {
  std::vector<Feasibility> out;
  for (const ReadingSpec& spec : readingsOf(needs.protocol)) {
    if (!isAsked(spec, needs)) continue;
    Feasibility feasible{spec.id, whyNot(spec, wholly(needs)), {}, std::nullopt, {}, {}};
    if (feasible.why.empty()) {
      feasible.toSay = whyNot(spec, needs);
      expectOf(spec, facts, feasible);
      feasible.better = betterFor(spec, facts);
    }
    out.push_back(std::move(feasible));
  }
  return out;
}

}  // namespace fin
