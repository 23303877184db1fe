// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/comparison/speed_ladder.h"
#include "core/comparison/spread.h"
#include "core/measuring/measurement.h"
#include "core/units/ids.h"

namespace fin {

/// A pass that was read, as it is compared with others. `planned` is the pass of the day's sheet that it was
/// filmed for: several clips may show one.
struct ComparedPass {
  PassId id;
  std::string title;
  std::string rig;
  std::optional<PlannedPassId> planned;
  Protocol protocol = Protocol::Retrieve;
  bool showsAction = false;  ///< as filmed and marked (speed_ladder.h)
  ReadingSet readings;
  std::optional<double> made_s = {};  ///< when, seconds since 1970, where the day's sheet knows
  bool control = false;               ///< of the rig that comes again all day
  std::optional<double> lineOut_mm = {};
  std::optional<Provenance> from = {};  ///< of its readings
  std::optional<int> block = {};        ///< of the day's sheet
  std::string camera = {};
  std::string cameraDay = {};  ///< passes of one share the error of their known length
  double lengthU95 = 0.0;      ///< of that length, relative
  DayId day = 1;

  /// mm/s, as it was read; none where nothing was pulled.
  [[nodiscard]] std::optional<double> speed() const;
  /// Pulled more than a tenth slower or faster than `speed_mm_s`. What was not pulled never is.
  [[nodiscard]] bool pulledOtherwise(std::optional<double> speed_mm_s) const;
};

/// What running depths are laid out by: the speed of the pull, mm/s, or the line that was out, mm.
enum class DepthBy { Speed, LineOut };
/// How deep a rig ran in one pull.
struct DepthPoint {
  double by = 0.0;
  double depth_mm = 0.0;
  double u95_mm = 0.0;
};
/// Pulls of one rig that differ in one thing only. `held` is the other one: the line out by speed (none where
/// it was not said), the speed by line out.
struct DepthCurve {
  std::string rig;
  std::optional<double> held;
  std::vector<DepthPoint> points;  ///< rising
};

template <class Value>
using ByRig = std::vector<std::pair<std::string, std::vector<Value>>>;

enum class ReadAs { Number, Class, Either };
/// All readings that any pass has, in the order of the protocols.
std::vector<ReadingId> readingsAmong(const std::vector<ComparedPass>& passes, ReadAs as = ReadAs::Number);
/// Speeds of the pulls, each standing for those within a tenth of it; rising.
std::vector<double> speedsOf(const std::vector<ComparedPass>& passes);
/// The values of one reading, of pulls at about one speed where one is given, and each planned pass once: of
/// several clips of one camera the surest; of several cameras the one that read most passes. Another camera
/// fills in what that one lost, shifted by the mean difference over the passes that both read, three at
/// least; where it filmed no pass together with it, its values stand as they are.
std::vector<ComparedRig> valuesOf(const std::vector<ComparedPass>& passes, ReadingId reading,
                                  std::optional<double> speed_mm_s = {});
/// The speed at which most rigs with this reading were pulled (of equals the one with most passes); none
/// where nothing was pulled.
std::optional<double> commonSpeed(const std::vector<ComparedPass>& passes, ReadingId reading);
/// Rigs that were pulled at speeds more than a tenth apart, each with its rungs.
ByRig<LadderRung> laddersOf(const std::vector<ComparedPass>& passes);
/// Rigs whose running depth was read. Lines within a twentieth count as one, speeds within a tenth.
std::vector<DepthCurve> depthsOf(const std::vector<ComparedPass>& passes, DepthBy by);

}  // namespace fin
