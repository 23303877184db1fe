// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/cautions.h"

#include <algorithm>
#include <iterator>

namespace fin {

const std::vector<Caution>& cautions() {
  static const std::vector<Caution> all{
      {Step::Poolside, "Hooks", "Points covered or off, barbs flat, eyes covered, nobody behind a cast.",
       "Cover or remove hook points for tank passes and press the barbs flat. Wear eye protection. Nobody "
       "stands "
       "behind a cast, and no hand goes under a moving lure. Keep pliers and a first-aid box at hand."},
      {Step::Cameras, "Electricity and water",
       "Battery or extra-low-voltage light and cameras at the edge; no charging at the water.",
       "At the water's edge use battery or extra-low-voltage lights and cameras only. Mains only through "
       "residual-current protection fitted by a licensed electrician and by your local code. Nothing is "
       "charged at "
       "the water."},
      {Step::Poolside, "Drowning and slipping",
       "Never alone; shoes for wet decks; keep children from open water.",
       "Never work alone. The rules and fences of the pool hold. Wear shoes for wet decks. Keep children "
       "away from "
       "open tanks and pools."},
      {Step::Water, "Load",
       "Filled water weighs over a tonne per cubic metre: floor and stand are for a qualified person.",
       "A filled tank weighs over a tonne per cubic metre. Whether a floor or a stand carries it is for a "
       "qualified "
       "person to say, by your local code."},
      {Step::Rack, "Lead", "Wash hands after lead; none in the mouth; mind local bans on small weights.",
       "Wash your hands after handling lead and put none in your mouth. Small lead weights are banned in "
       "places: "
       "follow the local rules. Melting lead is not covered here."},
      {Step::Water, "Salt, dye and scent",
       "None of it into drains, pools with plant rooms or wild water; never mix pool chemicals.",
       "Salt, dye and scent do not go into drains, into pools with plant rooms, or into wild water: follow "
       "the local "
       "rules. Pool chemicals are never mixed."},
      {Step::Sheet, "Fishing rules", "Seasons, sizes and what may be kept are local: ask there.",
       "Fishing rules and size limits are local. Nothing in this program says what may be kept."},
  };
  return all;
}

std::vector<Caution> cautionsFor(Step step) {
  std::vector<Caution> out;
  std::copy_if(cautions().begin(), cautions().end(), std::back_inserter(out),
               [step](const Caution& c) { return c.step == step; });
  return out;
}

}  // namespace fin
