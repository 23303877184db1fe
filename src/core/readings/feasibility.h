// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/readings/sheet.h"

namespace fin {

/// What is known of a clip before anything is followed.
struct ClipFacts {
  double rate_Hz = 0.0;   ///< frames in a true second
  double length_s = 0.0;  ///< true time in the window
  double width_px = 0.0;
  std::optional<double> scaleRelativeU95;
  std::optional<double> bodyLength_px;  ///< between the ends' marks, where both are placed
};

/// What one reading of a clip will be worth.
struct Feasibility {
  ReadingId id{};
  std::string why;                    ///< why the clip cannot show it; empty where it can
  std::string toSay;                  ///< what the person has to say first; empty where nothing is missing
  std::optional<double> expectedU95;  ///< in `unit`, where it can be told before
  std::string unit;                   ///< "%" of the value, "deg", "Hz", "mm" as the case may be
  std::string better;                 ///< what to film otherwise; empty where nothing needs to
};

/// For every reading of a protocol, in its order. What still has to be said (a mark, a length) counts as a
/// reason.
///
/// Model: a lure that swings by a sixth of its length at about five beats a second, marks that are held to
/// the follower's usual third of a pixel; the uncertainty of a rate is its Cramér–Rao bound
/// with beats of usual unevenness, of a length the
/// scale's, of a swing the place of the marks over the body. An expectation, not a bound: a hunting lure will
/// scatter more.
std::vector<Feasibility> feasibilityOf(const PassNeeds& needs, const ClipFacts& facts);

}  // namespace fin
