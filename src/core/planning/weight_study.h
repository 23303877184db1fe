// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/comparison/heads.h"
#include "core/planning/rack.h"
#include "core/water/hang.h"
#include "core/water/weight_change.h"

namespace fin {

/// The fall of one rig, as its passes gave it.
struct MeasuredFall {
  std::string rig;
  std::optional<RigId> rigId;  ///< where the rack knows it
  Estimate rate;               ///< mm/s, mean of its passes
  std::string mode;            ///< way of falling; empty where it was not told
  std::optional<double> attitude_deg;
  std::optional<double> glideRatio;
  std::optional<double> kick_deg;
  Seconds timeConstant{0.0};  ///< of coming up to speed; 0 where the drop until steady was not read
};

/// Which rig of the rack a pass was made with; null where it is none of them.
using RigOfPass = std::function<const Rig*(const ComparedPass&)>;

/// The falls among passes, one for each rig, in the order in which they were read.
std::vector<MeasuredFall> fallsAmong(const std::vector<ComparedPass>& passes, const RigOfPass& rigOf);

/// What is known of a rig's weights: head, hook and insert as the rack has them (0 where not said), the body
/// as it was weighed in the water.
RigWeights weightsOf(const Rig& rig, Grams bodyInWater);

/// The falls of one model's rigs as falls on heads: all that a rig has but the body counts as its head.
/// Rigs of which no such weight is known are left out.
std::vector<HeadFall> headsOf(const std::vector<MeasuredFall>& falls, ModelId model, const Rack& rack,
                              const WaterState& water);

/// A rig as it would hang in other water, from an answered question: its mass is the model's, with head and
/// insert as changed, and with the hooks where the model is sold without. BadRequest without a model's
/// weight.
Result<HangingLure> hangingLure(const Model& model, const WeightQuestion& question,
                                const WeightAnswer& answer);

/// A prediction held against a second rig of the same model whose fall was measured too.
struct FallCheck {
  std::string rig;
  Estimate predicted;   ///< mm/s
  Estimate measured;    ///< mm/s
  bool within = false;  ///< of what both are unsure by
  double miss = 0.0;    ///< share of the measured rate, above 0 where the prediction is faster
  std::string
      otherMode;  ///< how the other falls, where it is not as this one does and the miss is not within
};

/// For every other rig of the model in `falls`. `question` is of `fall`; its changed weights do not count.
/// What cannot be predicted is left out.
std::vector<FallCheck> checkAgainst(const std::vector<MeasuredFall>& falls, const MeasuredFall& fall,
                                    const WeightQuestion& question, const Rack& rack);

}  // namespace fin
