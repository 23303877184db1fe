// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"
#include "core/readings/twitch_starts.h"

namespace fin {

/// Hops off the bottom, seen from the side: a hop is a twitch upwards. How high, how it falls back, and
/// whether the tail kicks on the way down. Writes what stands and why the rest does not.
///
/// Height: highest place over the lowest one before it, since the hop before had come down. Fall back: from
/// the highest place to nine tenths of the way down; its rate is the slope of a straight line from a fifth to
/// nine tenths of it. Kick: the rhythm of tail against body in every fall that shows two whole kicks.
/// Accuracy: of 30 rehearsal passes the truth lay inside u95 29 times for the height, 25 for the rate of
/// falling back, 30 for the kick (tests/rehearsal/coverage_test.cpp). Source: our own definitions,
/// docs/methods/hops-and-sound.md. Pure; on any thread.
void readHop(const PassTraces& traces, ReadingSheet& sheet, const std::optional<TwitchStarts>& said = {});

}  // namespace fin
