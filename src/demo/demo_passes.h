// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/measuring/pass_request.h"
#include "core/planning/rack.h"
#include "core/rehearsal/tank.h"

namespace fin {

/// A clip of the demo day: whose pass it is, and what the rehearsal tank films for it.
struct DemoPass {
  std::string file;
  std::string title;
  RigId rig;
  RehearsalScene scene;
  bool outlined = false;                   ///< its outline is drawn, beside the marks
  bool onSheet = true;                     ///< else it was made beside the day's sheet
  std::optional<QuietStretch> quiet = {};  ///< of a pass that is read for its sound alone
  int nth = 1;                             ///< of the passes of its rig and protocol on the sheet
  PieceId piece = {};
  std::optional<Hertz> saidRate = {};  ///< where the tester said another than the camera was set to
};

/// By their numbers on the demo rack.
enum DemoRig : std::int64_t {
  kVinto7 = 21,
  kVinto4,
  kMirk7,
  kSkrell,
  kPellow,
  kOblig,
  kOblag,
  kTavver,
  kHasp
};

/// Made in the day's order; the first clips of a demo.
std::vector<DemoPass> demoPasses();
/// Second pulls, the near twin of one model, twitches, and one rig from dead slow to too fast.
std::vector<DemoPass> furtherPasses();
/// In salt water, with the twin that came again: does it fall slower, and does it still hang?
std::vector<DemoPass> saltDayPasses();
/// A worn lure beside an unused one.
std::vector<DemoPass> wornDayPasses();

/// The pieces of the Vinto that the third day holds against each other.
inline constexpr std::int64_t kWornPiece = 101;
inline constexpr std::int64_t kUnusedPiece = 102;

}  // namespace fin
