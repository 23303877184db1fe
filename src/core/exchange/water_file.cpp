// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/water_file.h"

#include <cmath>
#include <nlohmann/json.hpp>

namespace fin {
namespace {

using nlohmann::ordered_json;

std::string written(const ordered_json& document) {
  return document.dump(2, ' ', false, ordered_json::error_handler_t::replace) + "\n";
}

/// Endless has no number in JSON.
ordered_json bounded(double value) {
  return std::isfinite(value) ? ordered_json(value) : ordered_json(nullptr);
}

ordered_json optionally(const std::optional<double>& value) {
  return value ? ordered_json(*value) : ordered_json(nullptr);
}

const char* wordFor(RuleState::Is is) {
  constexpr const char* kWords[] = {"awake", "no", "asleep", "off", "wrong"};
  return kWords[static_cast<std::size_t>(is)];
}

std::string propertyOf(const TieWish& wish) {
  switch (wish.of) {
    case TieWish::Of::Length:
      return "length";
    case TieWish::Of::Finish:
      return "finish";
    case TieWish::Of::DaysUnseen:
      return "days_unseen";
    case TieWish::Of::Reading:
      break;
  }
  return std::string(toString(wish.reading));
}

ordered_json toJson(const AwakeWish& awake, const std::vector<TieRule>& rules) {
  ordered_json out{{"rule", rules[awake.rule].name}, {"wants", propertyOf(awake.wish)}};
  if (awake.wish.of == TieWish::Of::Finish) {
    out["target"] = awake.wish.bright ? "bright" : "dull";
  } else {
    out["direction"] = std::string(toString(awake.wish.direction));
    if (awake.wish.direction == Direction::Target) out["target"] = awake.wish.target;
  }
  out["weight"] = awake.weight;
  return out;
}

ordered_json toJson(const Rate& rate) {
  return {{"value", rate.value}, {"from", rate.from}, {"to", rate.to}};
}

ordered_json toJson(const RateRatio& ratio) {
  return {{"ratio", bounded(ratio.ratio)}, {"from", ratio.from}, {"to", bounded(ratio.to)}, {"p", ratio.p}};
}

const char* wordFor(ShrunkRates::How how) {
  constexpr const char* kWords[] = {"fitted", "few_rigs", "no_spread", "raw"};
  return kWords[static_cast<std::size_t>(how)];
}

const char* wordFor(TierAdvice::Go go) {
  constexpr const char* kWords[] = {"stay", "down", "up"};
  return kWords[static_cast<std::size_t>(go)];
}

std::string rigName(const Rack* rack, RigId id) {
  const Rig* rig = rack == nullptr ? nullptr : rack->rig(id);
  return rig == nullptr ? std::string() : rack->fullName(*rig);
}

}  // namespace

std::string writeTieOn(const TieOn& result, const std::vector<TieCandidate>& candidates,
                       const std::vector<TieRule>& rules) {
  ordered_json out{{"format", "agile-fin-tie-on/1"}, {"rules", ordered_json::array()}};
  for (std::size_t i = 0; i < rules.size(); ++i) {
    ordered_json rule{{"name", rules[i].name},
                      {"is", wordFor(result.rules[i].is)},
                      {"when", rules[i].when},
                      {"wants", rules[i].wants},
                      {"because", rules[i].because}};
    if (!result.rules[i].why.empty()) rule["why"] = result.rules[i].why;
    if (!result.rules[i].silenced.empty()) rule["silenced"] = result.rules[i].silenced.size();
    out["rules"].push_back(std::move(rule));
  }
  out["wishes"] = ordered_json::array();
  for (const AwakeWish& wish : result.wishes) out["wishes"].push_back(toJson(wish, rules));
  out["opposed"] = ordered_json::array();
  for (const auto& [a, b] : result.opposed) out["opposed"].push_back({a, b});
  out["choices"] = ordered_json::array();
  for (const TieChoice& choice : result.choices) {
    ordered_json points = ordered_json::array();
    for (const auto& p : choice.points) points.push_back(optionally(p));
    out["choices"].push_back({{"rig", candidates[choice.candidate].name},
                              {"ranked", choice.ranked},
                              {"known", choice.known},
                              {"floor", choice.floor},
                              {"ceiling", choice.ceiling},
                              {"points", points}});
  }
  out["too_close_to_call"] = result.tooClose;
  if (!result.whyNone.empty()) out["nothing_proposed"] = result.whyNone;
  out["film"] = ordered_json::array();
  for (const ReadingId reading : result.film) out["film"].push_back(std::string(toString(reading)));
  return written(out);
}

std::string writeRun(const RunReport& report) {
  const RunningDay& run = report.run;
  ordered_json out{{"format", "agile-fin-run/1"}, {"day", report.day}, {"rod_hours", run.rodHours()}};
  out["stints"] = ordered_json::array();
  for (const Stint& stint : run.stints) {
    out["stints"].push_back({{"rod", stint.rod},
                             {"rig", rigName(report.rack, stint.rig)},
                             {"from_s", stint.from_s},
                             {"to_s", stint.to_s},
                             {"hours", stint.hours()},
                             {"speed_mm_s", optionally(stint.speed_mm_s)},
                             {"block", stint.block},
                             {"tier", stint.tier}});
  }
  out["touches"] = ordered_json::array();
  for (const Touch& touch : run.touches) {
    out["touches"].push_back({{"at_s", touch.at_s},
                              {"kind", std::string(toString(touch.kind))},
                              {"rig", rigName(report.rack, touch.rig)},
                              {"block", touch.block}});
  }
  out["since_touch_rod_min"] = run.sinceTouch_rodMin();
  out["to_first_touch_rod_min"] = optionally(run.toFirstTouch_rodMin());
  out["wasted"] = {{"outside_band_rod_min", report.wasted.outsideBand_rodMin},
                   {"out_of_water_rod_min", report.wasted.outOfWater_rodMin}};
  out["chance_of_silence"] = report.silence;
  out["advice"] = {{"go", wordFor(report.advice.go)}, {"because", report.advice.because}};
  out["tier"] = run.tier;
  out["tiers"] = ordered_json::array();
  if (report.tiers) {
    for (const Tier& tier : *report.tiers) {
      ordered_json rigs = ordered_json::array();
      for (const std::size_t i : tier.rigs)
        rigs.push_back({{"rig", report.bands[i].name}, {"heard", report.bands[i].heard}});
      out["tiers"].push_back({{"rigs", rigs},
                              {"from_mm_s", tier.from_mm_s},
                              {"to_mm_s", tier.to_mm_s},
                              {"middle_mm_s", tier.middle()}});
    }
  } else {
    out["no_tiers"] = report.tiers.error().message;
  }
  out["contradictions"] = report.contradictions;
  out["troubles"] = run.troubles;
  return written(out);
}

std::string writeCatches(const CatchReport& report) {
  ordered_json out{{"format", "agile-fin-catches/1"}, {"rigs", ordered_json::array()}};
  for (const RigCatches& rig : report.rigs) {
    ordered_json one{{"rig", rig.rig},
                     {"hours", rig.tally.hours},
                     {"fish", rig.tally.fish},
                     {"misses", rig.tally.misses},
                     {"follows", rig.tally.follows},
                     {"fouls", rig.tally.fouls},
                     {"lost", rig.tally.lost},
                     {"per_hour", toJson(rig.fish)},
                     {"misses_per_hour", toJson(rig.misses)},
                     {"follows_per_hour", toJson(rig.follows)},
                     {"shrunk_per_hour", toJson(rig.shrunk)}};
    if (rig.perTenPaid)
      one["per_ten_paid"] = {
          {"paid", rig.paid}, {"currency", rig.currency}, {"fish", toJson(*rig.perTenPaid)}};
    out["rigs"].push_back(std::move(one));
  }
  out["shrunk"] = {{"how", wordFor(report.how)}, {"a", report.a}, {"b", report.b}};
  out["pairs"] = ordered_json::array();
  for (const RigsByCatch& pair : report.pairs) {
    ordered_json one{
        {"a", report.rigs[pair.a].rig}, {"b", report.rigs[pair.b].rig}, {"whole", toJson(pair.whole)}};
    if (pair.inBlocks) {
      one["in_blocks"] = toJson(*pair.inBlocks);
      one["blocks"] = pair.blocks;
    }
    one["p"] = pair.p;
    if (pair.toTell) one["hours_each_to_tell"] = pair.toTell->each;
    out["pairs"].push_back(std::move(one));
  }
  out["tank_and_water"] = ordered_json::array();
  for (const TankAndWater& one : report.tank) {
    ordered_json line{{"reading", std::string(toString(one.reading))}, {"rigs", one.rigs}};
    if (one.tooFew.empty()) {
      line["rho"] = one.agreement.rho;
      line["p"] = one.p;
    } else {
      line["refused"] = one.tooFew;
    }
    out["tank_and_water"].push_back(std::move(line));
  }
  out["troubles"] = report.troubles;
  return written(out);
}

std::string writeBox(const BoxReport& report) {
  ordered_json out{
      {"format", "agile-fin-box/1"}, {"purposes", report.purposes}, {"lures", ordered_json::array()}};
  for (const BoxLure& lure : report.lures) {
    ordered_json points = ordered_json::array();
    for (const auto& p : lure.points) points.push_back(optionally(p));
    out["lures"].push_back(
        {{"lure", lure.name}, {"owned", lure.owned}, {"price", optionally(lure.price)}, {"points", points}});
  }
  out["box"] = ordered_json::array();
  for (const std::size_t i : report.box.lures) out["box"].push_back(report.lures[i].name);
  out["loss"] = report.box.loss;
  out["uncovered"] = ordered_json::array();
  for (const std::size_t p : report.box.uncovered) out["uncovered"].push_back(report.purposes[p]);
  if (report.buy)
    out["buy_first"] = {{"lure", report.lures[report.buy->lure].name},
                        {"saved", report.buy->saved},
                        {"saved_per_price", report.buy->savedPerPrice}};
  out["spares"] = ordered_json::array();
  for (const auto& [lure, spares] : report.spares)
    out["spares"].push_back({{"lure", lure}, {"take", spares.take}, {"too_few", spares.tooFew}});
  return written(out);
}

}  // namespace fin
