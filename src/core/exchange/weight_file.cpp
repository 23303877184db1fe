// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/weight_file.h"

#include <nlohmann/json.hpp>

#include "core/exchange/readings_json.h"
#include "core/readings/registry.h"

namespace fin {
namespace {

using nlohmann::ordered_json;

void put(ReadingId id, const Result<Estimate>& told, ReadingSet& set) {
  if (!told) {
    set.refused.push_back({id, told.error().message});
    return;
  }
  set.readings.push_back(
      {id, told->value, std::string(unitOf(id)), told->u95, told->n, told->grade, told->notes, told->parts});
}

}  // namespace

std::string writeHeads(const std::vector<HeadFall>& falls, const std::vector<double>& heads_g,
                       const std::vector<std::string>& warnings) {
  ReadingSet set;
  put(ReadingId::BodyWeight, bodyWeight(falls), set);
  const auto kick = kickOnset(falls);
  put(ReadingId::KickFallRate, kick ? Result<Estimate>(kick->rate) : tl::unexpected(kick.error()), set);
  put(ReadingId::KickHead, kick ? kick->head : tl::unexpected(kick.error()), set);
  const std::size_t told = set.readings.size();
  const std::size_t untold = set.refused.size();
  for (const double head : heads_g) put(ReadingId::FallRate, fallRateOnHead(falls, head), set);
  ordered_json out;
  out["format"] = "agile-fin-readings/1";
  out["protocol"] = "fall";
  out["method"] = kMethodVersion;
  putReadings(set, out);
  // Each further head has its fall rate among those told or those refused, in the order asked.
  std::size_t at = told;
  std::size_t not_at = untold;
  for (const double head : heads_g) {
    const bool fell = fallRateOnHead(falls, head).has_value();
    (fell ? out["readings"][at++] : out["refused"][not_at++])["head_in_water_g"] = head;
  }
  out["points"] = ordered_json::array();
  for (const HeadFall& fall : falls)
    out["points"].push_back({{"pass", fall.name},
                             {"head_in_water_g", fall.head_g},
                             {"fall_rate_mm_s", fall.rate_mm_s},
                             {"fall_rate_u95_mm_s", fall.rateU95_mm_s},
                             {"fall_mode", fall.mode}});
  out["warnings"] = warnings;
  return out.dump(1, ' ', false, ordered_json::error_handler_t::replace) + "\n";
}

}  // namespace fin
