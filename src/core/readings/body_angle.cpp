// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/body_angle.h"

#include "core/signals/block_mean.h"

namespace fin {

double bodyAnglePlaceU95_deg(const PassTraces& traces) {
  return placeDifferenceU95(traces) / traces.bodyLength * kDegreesPerRadian;
}

Estimate meanBodyAngle(const Series& part, std::size_t blocks, const PassTraces& traces) {
  const Mean mean = blockMean(part, blocks);
  Estimate e;
  e.value = mean.value;
  e.setUncertainty({{UncertaintySource::Scatter, mean.u95},
                    {UncertaintySource::Marks, bodyAnglePlaceU95_deg(traces)},
                    {UncertaintySource::Plumb, kPlumbU95_deg}});
  e.n = static_cast<double>(part.size());
  e.grade = e.u95 < 1.0 ? Grade::Good : e.u95 < 3.0 ? Grade::Fair : Grade::Poor;
  return e;
}

}  // namespace fin
