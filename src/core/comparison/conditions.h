// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/units/ids.h"

namespace fin {

/// Under what a pass was made, as far as it should be the same for all.
struct PassConditions {
  PassId pass;
  std::string camera;
  std::optional<double> cameraDistance_mm;
  // Of its rig; absent where the day's plan does not know it.
  std::optional<std::string> line;
  std::optional<std::string> link;
  std::optional<double> lineStrength_kg;
  std::optional<double> head_g;
  std::string hook;
  bool rigKnown = false;
  // Of the day; empty or absent where it was not said.
  std::string light;
  std::string wind;
  std::optional<double> water_C;
};

/// Something that should have been equal between passes and was not.
struct Unequal {
  enum class What {
    PullSpeed,
    Cadence,
    Camera,
    Line,
    LineStrength,
    Link,
    Hook,
    Head,
    Light,
    Wind,
    WaterTemperature
  };
  What what = What::PullSpeed;
  double least = 0.0;  ///< PullSpeed (mm/s), Cadence (s) and WaterTemperature (°C)
  double most = 0.0;
  std::vector<std::string> values;  ///< of the others, each once, in order; empty for "not said"
};

/// What was not equal between the passes with this reading, of pulls at about one speed where one is given.
///
/// Pull speeds differ when they lie more than a tenth apart, cadences when the longest interval is more than
/// a tenth longer than the shortest, the water's temperature when it changed by more than a degree; hooks,
/// heads, light and wind where they were said and are not all alike. Cameras and their distance count for
/// loudness alone: an angle or a length does not depend on them.
std::vector<Unequal> unequalConditions(const std::vector<ComparedPass>& passes,
                                       const std::vector<PassConditions>& conditions, ReadingId reading,
                                       std::optional<double> speed_mm_s = {});

/// The cameras of these passes, with their distance where it was said ("fixed at 1.5 m"), each once.
std::vector<std::string> camerasOf(const std::vector<ComparedPass>& passes,
                                   const std::vector<PassConditions>& conditions);

}  // namespace fin
