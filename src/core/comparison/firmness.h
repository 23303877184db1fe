// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/comparison/ranking.h"

namespace fin {

/// How firm the first place of a ranking is, by the chance of first under measuring and other weights both.
enum class Firmness {
  None,      ///< nothing is ranked
  Firm,      ///< from 95 %, and nothing that is not read could change it
  Likely,    ///< from 75 %
  TooClose,  ///< below
};

/// A rig that may be first as well, and with which chance.
struct Rival {
  std::size_t entry = 0;
  double chance = 0.0;
};

struct FirstPlace {
  Firmness firmness = Firmness::None;
  std::vector<std::size_t> entries;  ///< that share it
  std::vector<Rival> rivals;         ///< with a chance of 5 % and more, in the ranking's order
};

FirstPlace firstPlaceOf(const Ranking& ranking);

}  // namespace fin
