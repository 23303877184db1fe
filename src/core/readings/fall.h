// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"
#include "core/readings/thresholds.h"

namespace fin {

/// The fall seen from the side: rate over the steady part, countdown, glide, attitude and mode. The steady
/// part runs from 95 % of the fitted terminal speed to just before the bottom; a fall that never gets there
/// is refused with what it would take.
/// Accuracy: of 30 rehearsal falls the truth lay inside u95 30 times for the rate and the settle distance, 29
/// for glide, 27 for attitude and the rate of rocking (tests/rehearsal/coverage_test.cpp). Source:
/// terminal_fall.h. Pure; on any thread.
void readFall(const PassTraces& traces, View view, ReadingSheet& sheet, const Thresholds& thresholds = {});

}  // namespace fin
