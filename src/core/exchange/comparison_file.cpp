// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/comparison_file.h"

#include <nlohmann/json.hpp>

#include "core/readings/registry.h"

namespace fin {
namespace {

using nlohmann::ordered_json;

const char* wordFor(Scaling scaling) {
  switch (scaling) {
    case Scaling::Ratio:
      return "ratio";
    case Scaling::Share:
      return "share";
    case Scaling::Difference:
      break;
  }
  return "difference";
}

ordered_json toJson(const RigMean& rig) {
  return {{"rig", rig.rig},
          {"mean", rig.mean},
          {"u95", rig.u95()},
          {"from", rig.from},
          {"to", rig.to},
          {"passes", rig.passes},
          {"letters", rig.letters},
          {"places", {rig.placeFrom, rig.placeTo}},
          {"may_be_highest", rig.mayBeMost},
          {"may_be_lowest", rig.mayBeLeast}};
}

ordered_json toJson(const RigPair& pair, const Spread& spread) {
  ordered_json out{{"a", spread.rigs[pair.a].rig},
                   {"b", spread.rigs[pair.b].rig},
                   {"difference", pair.difference},
                   {"u95", 0.5 * (pair.to - pair.from)},
                   {"from", pair.from},
                   {"to", pair.to},
                   {"p", pair.p},
                   {"apart", pair.apart},
                   {"alike_within", pair.alikeWithin},
                   {"alike", pair.alike}};
  if (pair.morePasses) out["passes_wanted"] = *pair.morePasses;
  return out;
}

ordered_json toJson(const CamerasAgree& cameras) {
  const Agreement& a = cameras.agreement;
  return {{"first", cameras.first},
          {"second", cameras.second},
          {"passes", a.n},
          {"compared_by", a.byRatio ? "ratio" : "difference"},
          {"mean", a.mean},
          {"from", a.from},
          {"to", a.to},
          {"concordance", a.concordance},
          {"within_u95", a.within}};
}

ordered_json toJson(const ComparedReading& compared) {
  const Spread& spread = compared.spread;
  ordered_json out{{"name", toString(compared.reading)},
                   {"unit", unitOf(compared.reading)},
                   {"compared_by", wordFor(spread.scaling)}};
  if (compared.speed_mm_s) out["speed_mm_s"] = *compared.speed_mm_s;
  out["taken_out"] = ordered_json::array();
  if (spread.adjusted.blocks) out["taken_out"].push_back("blocks");
  if (spread.adjusted.speed) out["taken_out"].push_back("pull_speed");
  if (spread.adjusted.hours) out["taken_out"].push_back("hour");
  out["rigs"] = ordered_json::array();
  for (const RigMean& rig : spread.rigs) out["rigs"].push_back(toJson(rig));
  out["pairs"] = ordered_json::array();
  for (const RigPair& pair : spread.pairs) out["pairs"].push_back(toJson(pair, spread));
  if (compared.worth) out["worth_having"] = *compared.worth;
  out["cameras"] = ordered_json::array();
  for (const CamerasAgree& cameras : compared.cameras) out["cameras"].push_back(toJson(cameras));
  if (!spread.whyNoPairs.empty()) out["not_compared"] = spread.whyNoPairs;
  return out;
}

}  // namespace

std::string writeComparison(const std::vector<ComparedReading>& readings,
                            const std::vector<std::string>& outdated) {
  ordered_json out;
  out["format"] = "agile-fin-comparison/1";
  out["readings"] = ordered_json::array();
  for (const ComparedReading& reading : readings) out["readings"].push_back(toJson(reading));
  out["outdated"] = outdated;
  return out.dump(1, ' ', false, ordered_json::error_handler_t::replace) + "\n";
}

}  // namespace fin
