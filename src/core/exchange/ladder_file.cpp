// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/ladder_file.h"

#include <nlohmann/json.hpp>

#include "core/exchange/readings_json.h"

namespace fin {
namespace {

using nlohmann::ordered_json;

ordered_json toJson(const LadderRung& rung) {
  ordered_json out{
      {"pass", rung.name}, {"speed_mm_s", rung.speed_mm_s}, {"speed_u95_mm_s", rung.speedU95_mm_s}};
  if (rung.action_deg) {
    out["action_deg"] = *rung.action_deg;
    out["action_u95_deg"] = rung.actionU95_deg;
  }
  if (rung.cycleVariation_percent) out["cycle_variation_percent"] = *rung.cycleVariation_percent;
  if (rung.spinTurns) out["spin_turns"] = *rung.spinTurns;
  if (rung.list_deg) out["roll_list_deg"] = *rung.list_deg;
  return out;
}

ordered_json toJson(const CadenceRung& rung) {
  return {{"pass", rung.name},
          {"interval_s", rung.interval_s},
          {"rise_mm", rung.rise_mm},
          {"rise_u95_mm", rung.riseU95_mm}};
}

template <class Ladder>
std::string written(const Ladder& ladder, Protocol protocol, const std::vector<std::string>& warnings) {
  ordered_json out;
  out["format"] = "agile-fin-readings/1";
  out["protocol"] = toString(protocol);
  out["method"] = kMethodVersion;
  putReadings(ladder.readings, out);
  out["points"] = ordered_json::array();
  for (const auto& rung : ladder.rungs) out["points"].push_back(toJson(rung));
  out["warnings"] = warnings;
  return out.dump(1, ' ', false, ordered_json::error_handler_t::replace) + "\n";
}

}  // namespace

std::string writeLadder(const SpeedLadder& ladder, const std::vector<std::string>& warnings) {
  return written(ladder, Protocol::Retrieve, warnings);
}

std::string writeCadence(const CadenceLadder& ladder, const std::vector<std::string>& warnings) {
  return written(ladder, Protocol::Twitch, warnings);
}

}  // namespace fin
