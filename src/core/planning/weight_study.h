// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/planning/rack.h"
#include "core/water/weight_change.h"

namespace fin {

/// The fall of one rig, as its passes gave it.
struct MeasuredFall {
  std::string rig;
  std::optional<RigId> rigId;  ///< where the rack knows it
  Estimate rate;               ///< mm/s, mean of its passes
  std::string mode;            ///< way of falling; empty where it was not told
  Seconds timeConstant{0.0};   ///< of coming up to speed; 0 where the drop until steady was not read
};

/// Which rig of the rack a pass was made with; null where it is none of them.
using RigOfPass = std::function<const Rig*(const ComparedPass&)>;

/// The falls among passes, one for each rig, in the order in which they were read.
std::vector<MeasuredFall> fallsAmong(const std::vector<ComparedPass>& passes, const RigOfPass& rigOf);

/// What is known of a rig's weights: head, hook and insert as the rack has them (0 where not said), the body
/// as it was weighed in the water.
RigWeights weightsOf(const Rig& rig, Grams bodyInWater);

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
