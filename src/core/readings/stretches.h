// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/readings/pass_traces.h"

namespace fin {

/// A part of a path in which the lure does one thing.
struct PathStretch {
  Protocol protocol = Protocol::Retrieve;
  double from_s = 0.0;
  double to_s = 0.0;
};
/// How far a cut between two may be off (95 %).
constexpr double kCutU95_s = 0.1;

/// Parts a path by what the lure does: runs (from a quarter of its fast speed until under a tenth of it),
/// falls and stillness. Runs of 1.5 s and more are pulls, shorter ones twitches, those that rise off the
/// bottom hops; still is a rest at the bottom, a pause elsewhere. Twitches keep their pauses, hops their
/// falls and rests, and what is shorter than 0.3 s joins its longer neighbour. `bottomWithin`: 10 mm in the
/// traces' unit. It misleads where a lure hardly moves, or is never still. Pure; on any thread.
std::vector<PathStretch> findStretches(const PassTraces& traces, double bottomWithin);

}  // namespace fin
