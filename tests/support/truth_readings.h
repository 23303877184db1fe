// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <random>

#include "core/readings/evidence.h"
#include "core/readings/reading.h"
#include "core/rehearsal/tank.h"

namespace fin::test {

/// Readings from the true places of a rehearsal's marks, each shaken by `scatter_px`.
/// Read by the protocol that the scene's motion is made for, or by another.
ReadingSet readTruth(const RehearsalTank& tank, double scatter_px = 0.0,
                     std::optional<Protocol> protocol = {});
/// The same with marks, known length and plumb line wrong as they are in use (followed_error.h).
ReadingSet readFollowed(const RehearsalTank& tank, std::mt19937& random,
                        std::optional<Protocol> protocol = {});
/// Where they came from.
Evidence evidenceOfTruth(const RehearsalTank& tank);

double valueOf(const ReadingSet& set, ReadingId name);

}  // namespace fin::test
