// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/comparison/agreement.h"

namespace fin {

/// One reading of a day as it was compared.
struct ComparedReading {
  ReadingId reading{};
  std::optional<double> speed_mm_s;  ///< of the pulls that were compared
  Spread spread;
  std::optional<double> worth = {};        ///< as CompareOptions
  std::vector<CamerasAgree> cameras = {};  ///< that filmed the same passes
};

/// Writes `agile-fin-comparison/1`: per reading its rigs, any two of them, and the passes still wanted. Names
/// in `outdated` are passes that were measured but do not count as they stand.
std::string writeComparison(const std::vector<ComparedReading>& readings,
                            const std::vector<std::string>& outdated);

}  // namespace fin
