// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "demo/demo_passes.h"

namespace fin {

// How the demo's passes are filmed: what differs from pass to pass is said by its motion.

/// In the trough: its tiles, its light, and from the side its surface and its floor.
RehearsalScene scene(LureBuild lure, Motion motion, View view, double seconds, unsigned seed);
/// From one side of the picture to the other, or as far as it comes.
RehearsalScene pulled(LureBuild lure, StraightPull pull, View view, unsigned seed);
/// A pull as it was, once more: a lure is never pulled twice in quite the same way.
DemoPass again(const char* file, const char* title, RigId rig, LureBuild lure, StraightPull pull, double Hz,
               double wobble_deg, unsigned seed);
/// Pulled and stopped, seen from the side: does the skirt stay spread, and how fast does it settle?
DemoPass skirted(const char* file, const char* title, RigId rig, LureBuild lure, SkirtStop stop,
                 unsigned seed);
/// Twitched at true speed with the sound on; every twitch knocks twice.
DemoPass heard(const char* file, const char* title, RigId rig, LureBuild lure, double gain, double tone_Hz,
               unsigned seed);
/// Where a sinking lure is worked along the bottom.
DemoPass hopped(const char* file, const char* title, RigId rig, LureBuild lure, Hops hops, unsigned seed);
/// Twitched and left alone: in the pause it drifts up by so much.
Jerks skrellTwitches(double drift_mm_s, unsigned seed);
/// A fall on the 7 g head, as on the first day but for its speed and its kick.
Sink vintoFall(double speed_mm_s, double kick_deg);
DemoPass fallen(const char* file, const char* title, RigId rig, LureBuild lure, const Sink& sink,
                unsigned seed);
DemoPass besideTheSheet(DemoPass pass);

}  // namespace fin
