// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/reading_id.h"

namespace fin {

/// On what scale rigs are compared by a reading. Fixed for each, never by the look of the data.
enum class Scaling {
  Ratio,       ///< by logarithms: lengths, speeds, rates, areas, times, peak-to-peak angles
  Difference,  ///< as it is: what has a sign, attitudes, decibels, counts, shares of time
  Share,       ///< k of n, %: by F. Anscombe's arcsine, 1948
};
Scaling scalingOf(ReadingId reading);

/// The least difference between two values of what is counted; 0 for what is measured.
double stepOf(ReadingId reading);

/// How often the known length goes into a reading: 1 for lengths and speeds, 2 for areas, −1 for times per
/// length, 0 for angles and rates.
int lengthsIn(ReadingId reading);

}  // namespace fin
