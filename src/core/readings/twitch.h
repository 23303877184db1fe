// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"
#include "core/readings/thresholds.h"
#include "core/readings/twitch_starts.h"

namespace fin {

/// Twitch and pause, and side-to-side walking. Writes what stands and why the rest does not.
///
/// Uncertainty: medians over twitches by their spread, the scale and the placing of the marks in quadrature.
/// From fewer than 3 twitches everything is poor; erraticness and dart spread need 3. A twitch that was left
/// out counts in nothing but the cadence.
/// Accuracy: of 30 rehearsal passes the truth lay inside u95 29 times for the advance, 30 for the
/// spring-back, 28 for its time, 29 for drift and attitude in the pause (tests/rehearsal/coverage_test.cpp).
/// Pure; on any thread.
void readTwitch(const PassTraces& traces, Protocol protocol, View view, ReadingSheet& sheet,
                const std::optional<TwitchStarts>& said = {}, const Thresholds& thresholds = {});

}  // namespace fin
