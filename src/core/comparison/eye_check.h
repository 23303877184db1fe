// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/comparison/agreement.h"
#include "core/units/ids.h"

namespace fin {

/// One judgement by eye: how much of a property a clip shows, 0 to 10.
struct EyeScore {
  PassId pass;
  ReadingId property{};  ///< the reading that measures the same
  double score = 0.0;
};

/// A pass as the eye and as the reading place it; 1 has most of the property.
struct EyeAndReading {
  PassId pass;
  double score = 0.0;  ///< mean over its repeats
  double reading = 0.0;
  double eyePlace = 0.0;
  double readingPlace = 0.0;
};

/// How far an eye agrees with the readings, and with itself.
struct EyeCheck {
  std::vector<EyeAndReading> passes;       ///< scored and read; those that are furthest apart first
  std::optional<RankAgreement> agreement;  ///< from three passes that differ on
  /// Standard deviation of one score, from clips that were scored more than once.
  std::optional<double> repeatSd;
};

/// Places are means for equals.
EyeCheck checkEye(const std::vector<EyeScore>& scores, const std::vector<ComparedPass>& passes,
                  ReadingId property);

/// Every clip twice in an order drawn from `seed`, never the same one twice in a row where there are three
/// and more.
std::vector<PassId> blindOrder(const std::vector<PassId>& passes, unsigned seed);

}  // namespace fin
