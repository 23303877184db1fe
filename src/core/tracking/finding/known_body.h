// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/tracking: a lure that is known by its look, seen again.
#pragma once

#include <optional>
#include <vector>

#include "core/tracking/finding/laid_out_body.h"
#include "core/tracking/track.h"

namespace fin {

/// With its marks; its nose is in front.
struct LureLook {
  struct Mark {
    MarkName name;
    double column;
    double row;
  };
  LaidOutBody body;
  std::vector<Mark> marks;
};

struct KnownPlace {
  double column = 0.0;
  double row = 0.0;
  double likeness = 0.0;  ///< −1 … 1, of its surroundings
};
/// A body with the end in front that looks like the nose, and its marks in the order of the look.
struct KnownBody {
  LaidOutBody body;
  std::optional<double> likeness;  ///< −1 … 1, of the whole
  std::vector<KnownPlace> places;
};
/// Seen from the one side or the other, swimming to either end.
KnownBody recognised(const LureLook& look, const LaidOutBody& body);

}  // namespace fin
