// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/water_cautions.h"

namespace fin {
namespace {

constexpr double kColdWater_C = 15.0;
constexpr double kManyCrests_m_s = 5.5;
constexpr double kWarmWater_C = 20.0;

}  // namespace

std::vector<std::string> cautionsOn(const WaterNow& water) {
  std::vector<std::string> out;
  if (water.number(Condition::Wind).value_or(0.0) >= kManyCrests_m_s)
    out.emplace_back("Many white crests: with a small boat, ashore.");
  const auto temperature = water.number(Condition::SurfaceTemperature);
  if (temperature && *temperature < kColdWater_C)
    out.emplace_back("Water below 15 °C takes the breath: dress for it, and wear a life jacket.");
  if (temperature && *temperature >= kWarmWater_C)
    out.emplace_back("From warm water fewer fish survive: unhook them in it.");
  return out;
}

}  // namespace fin
