// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"
#include "core/readings/twitch_motion.h"

namespace fin {

/// What the tail does on the way up of hops, and where the time is spent.

/// One kick rate for all rises (start to highest), by least squares with each rise's own phase, mean and
/// slope; u95 by rises drawn anew (fixed seed). Under one kick a rise refused, under two poor.
void readLiftKick(const PassTraces& traces, const std::vector<Twitch>& hops, ReadingSheet& sheet);

/// Height of the body's centre over the bottom, and of the waterline over the bottom there.
struct Levels {
  Series height;
  Series whole;
  double unsure = 0.0;  ///< u95 of a height
};
/// The share of the time in the lowest third; u95 is half the change when heights shift by theirs.
void readLowShare(const Levels& levels, ReadingSheet& sheet);
double lowShare_percent(const Levels& levels, double shift);

/// Median over hops of how far nose to mid bends against mid to tail, peak to peak. `bend` in degrees.
void readBodyPulse(const Series& bend_deg, const std::vector<Twitch>& hops, double perMove_deg,
                   ReadingSheet& sheet);

}  // namespace fin
