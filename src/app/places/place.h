// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace fin::app {

/// The last one has no name in the strip: one comes to it where a pass waits for a look.
enum class Place { Plan, Poolside, Bench, LineUp, Verdict, Log, LookThrough };

}  // namespace fin::app
