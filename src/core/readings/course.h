// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// Where a lure goes, seen from above, against the line it is pulled along.
///
/// Course: a straight line through its centre; u95 by Newey & West (A simple, positive semi-definite,
/// heteroskedasticity and autocorrelation consistent covariance matrix, Econometrica 55, 1987) over 1.5 s,
/// and a pixel at both ends of the marked line. Sway: 5 to 95 % of the path, averaged over a wobble, about
/// that straight line. Bend: the course of the last third less that of the first. Positive to the lure's
/// right. `across` is how far its centre lies beside the marked line, to the lure's right, against the way
/// along it. Pure; on any thread.
void readCourse(const Series& along, const Series& across, const PassTraces& traces, double line_px,
                ReadingSheet& sheet);

/// The course of places along and across a line, degrees.
double courseAngle_deg(const Series& along, const Series& across);

}  // namespace fin
