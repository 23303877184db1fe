// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/catches/wear.h"

namespace fin {

Result<Slope> wearOf(const RigHistory& history, RigId rig, const std::vector<FishedDay>& fished) {
  std::vector<std::pair<double, double>> points;
  for (std::size_t d = 0; d < history.days.size(); ++d) {
    double hours = 0.0;
    for (const FishedDay& day : fished) {
      if (day.date >= history.days[d].date) continue;
      for (const Stint& stint : day.run.stints) hours += stint.rig == rig ? stint.hours() : 0.0;
    }
    points.emplace_back(hours, history.history.days[d].mean);
  }
  return slopeOver(points);
}

}  // namespace fin
