// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// A blade that swings behind or beside a body: its own rate, beats of it to one wobble, and whether the two
/// go in step.
///
/// Phases run evenly from crossing to crossing of each rhythm. Coherence R = |mean exp i(m blade − n body)|
/// for the nearest n to m (both up to 4, within 3 %): P. Tass et al., Detection of n:m phase locking from
/// noisy data, Phys. Rev. Lett. 81, 1998; F. Mormann et al., Mean phase coherence, Physica D 144, 2000. In
/// step from 0.9 on where fewer than 5 % of 400 pairs that are shifted in time (by 2.5 cycles and more) reach
/// it; refused where they do, as even beats look linked to anything. Needs 15 cycles of both. Pure; on any
/// thread.
void readBeat(const Series& blade_deg, double bladeArm, const PassTraces& traces, ReadingSheet& sheet);

/// Mean phase coherence of two phases in cycles, m times one against n times the other.
double phaseCoherence(std::span<const double> one, std::span<const double> other, int m, int n);

}  // namespace fin
