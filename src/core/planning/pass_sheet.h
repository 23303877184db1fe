// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/planning/rack.h"
#include "core/readings/reading.h"
#include "core/units/ids.h"
#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

enum class PassState { Planned, Done, Fouled, Skipped };
std::string_view toString(PassState state);
std::optional<PassState> passStateNamed(std::string_view text);

/// One pass to be made.
struct PlannedPass {
  PlannedPassId id;
  RigId rig;
  Protocol protocol = Protocol::Retrieve;
  View view = View::Side;
  std::optional<double> speed_mm_s;
  int block = 1;         ///< every block holds each rig's passes once
  bool control = false;  ///< the control rig again, to catch drift
  int attempt = 1;       ///< 2 and up: made again after a fouled one
  PassState state = PassState::Planned;
  std::string label;  ///< what the helper is told instead of the rig, where the day is blind
  std::string whyFouled;
  std::string note;
  PieceId piece;                     ///< 0 where it was not said
  std::optional<double> lineOut_mm;  ///< how much line was out
  std::string light;                 ///< as the tester said it; empty for not said
  std::string wind;
  std::optional<double> water_C;
  std::optional<double> salinity_g_kg = {};
  double finished_s =
      0.0;  ///< wall clock when it was done, fouled or skipped, seconds since 1970; 0 for not yet

  friend bool operator==(const PlannedPass&, const PlannedPass&) = default;
};

/// One kind of pass that every rig makes.
struct SheetTask {
  Protocol protocol = Protocol::Retrieve;
  View view = View::Side;
  std::vector<double> speeds_mm_s;  ///< one pass for each; one pass without a speed where empty

  friend bool operator==(const SheetTask&, const SheetTask&) = default;
};

struct SheetOptions {
  std::vector<SheetTask> tasks;
  int repeats = 3;       ///< blocks
  unsigned seed = 1;     ///< kept, so that the order can be made again
  RigId controlRig;      ///< 0 for none
  int controlEvery = 8;  ///< passes from one control pass to the next
  bool blind = false;
  bool camerasTogether = true;  ///< one pass of a protocol serves all views at once
  double minutesPerPass = 3.0;
  double minutesPerRig = 4.0;  ///< to tie on another
  double daylight_min = 240.0;

  friend bool operator==(const SheetOptions&, const SheetOptions&) = default;
};

/// Randomised complete blocks: each block holds every rig once, with all its tasks on the line one after the
/// other in an order drawn anew. The order of rigs follows the rows of a randomised Latin square (R. Fisher &
/// F. Yates, Statistical Tables, 1938, the cyclic square with rows, columns and letters permuted), so that
/// over as many blocks as rigs every rig has stood in every place once, and light, water and tiredness favour
/// none. Errors: BadRequest without rigs or tasks, or for repeats below 1.
Result<std::vector<PlannedPass>> makeSheet(const std::vector<RigId>& rigs, const SheetOptions& options);

struct SheetTime {
  double minutes = 0.0;
  int rigChanges = 0;
};
/// For what is still to be made.
SheetTime timeFor(const std::vector<PlannedPass>& sheet, const SheetOptions& options);

/// A fouled pass, to be made again: what goes in right after it.
PlannedPass againAfter(const PlannedPass& fouled, PlannedPassId id);
/// The first pass that is still to be made; none when the day is done.
std::optional<std::size_t> nextPass(const std::vector<PlannedPass>& sheet);

}  // namespace fin
