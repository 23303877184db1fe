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
      {Step::OnTheWater, "Boat",
       "Life jacket on, cut-off cord tied, load and forecast minded; leave your return time ashore.",
       "In a boat wear a life jacket and tie the cut-off cord. Mind its load and the forecast, and leave the "
       "time of "
       "your return with somebody ashore. With many white crests: ashore."},
      {Step::OnTheWater, "Wading", "Life jacket, a stick, never alone.",
       "Wade with a life jacket and a stick, and never alone."},
      {Step::OnTheWater, "Bank", "Undercut edges give way; keep rods clear of power lines.",
       "Undercut edges give way. Keep rods well clear of power lines."},
      {Step::OnTheWater, "Thunder", "Rod down, and leave.",
       "At thunder put the rod down and leave the water."},
      {Step::Catching, "Hooks",
       "Eyes covered, barbs flat, cutter at hand; deep or near an eye: leave it in, doctor.",
       "Cover your eyes, press barbs flat, and have a cutter at hand. A hook that sits deep or near an eye "
       "stays in: "
       "to a doctor."},
      {Step::Catching, "Fish",
       "Wet hands, seconds of air, unhook in the water. Sizes, seasons and keeping: ask there.",
       "Wet your hands, give a fish seconds of air only, and unhook it in the water. From warm or deep water "
       "fewer "
       "survive. Sizes, seasons and what may be kept are local: ask there."},
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
