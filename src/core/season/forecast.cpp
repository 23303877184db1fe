// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/forecast.h"

#include <algorithm>
#include <map>

#include "core/calibration/refraction.h"

namespace fin {
namespace {

/// A day with its passes, and a reading of all rigs as the Line-up compares it.
class ReadDay {
 public:
  ReadDay(const DayPlan& day, const std::vector<ComparedPass>& passes) : day_(day), passes_(passes) {}
  std::string name(RigId rig) const { return day_.rack.nameOn(day_.id, rig); }
  const Spread& spread(ReadingId reading) {
    const auto known = spreads_.find(reading);
    if (known != spreads_.end()) return known->second;
    return spreads_[reading] = compare(valuesOf(passes_, reading, commonSpeed(passes_, reading)), reading);
  }
  /// It was said when a pass of one of these rigs was made already, or read.
  bool tooLate(const std::vector<RigId>& rigs, double said_s) const {
    const auto among = [&rigs](RigId rig) { return std::find(rigs.begin(), rigs.end(), rig) != rigs.end(); };
    const bool made = std::any_of(day_.sheet.begin(), day_.sheet.end(), [&](const PlannedPass& p) {
      return among(p.rig) && p.state == PassState::Done && p.finished_s > 0.0 && p.finished_s <= said_s;
    });
    const bool read = std::any_of(passes_.begin(), passes_.end(), [&](const ComparedPass& p) {
      return !p.made_s && p.from && p.from->madeAt_s > 0.0 && p.from->madeAt_s <= said_s &&
             std::any_of(rigs.begin(), rigs.end(), [&](RigId rig) { return name(rig) == p.rig; });
    });
    return made || read;
  }

 private:
  const DayPlan& day_;
  const std::vector<ComparedPass>& passes_;
  std::map<ReadingId, Spread> spreads_;
};

LineOutcome lineOutcome(ReadDay& day, const ForetoldLine& line) {
  LineOutcome out;
  const Spread& spread = day.spread(line.reading);
  const std::string name = day.name(line.rig);
  const auto rig = std::find_if(spread.rigs.begin(), spread.rigs.end(),
                                [&name](const RigMean& r) { return r.rig == name; });
  if (rig != spread.rigs.end()) out.read = ReadRange{rig->from, rig->to};
  if (day.tooLate({line.rig}, line.said_s)) {
    out.state = ForetoldState::SaidTooLate;
  } else if (out.read && (out.read->from > line.line || out.read->to < line.line)) {
    const bool over = out.read->from > line.line;
    out.state = over == line.over ? ForetoldState::CameTrue : ForetoldState::CameFalse;
  } else if (out.read) {
    out.state = ForetoldState::AcrossTheLine;
  }
  return out;
}

OrderOutcome orderOutcome(ReadDay& day, const ForetoldOrder& order) {
  OrderOutcome out{.saidTooLate = day.tooLate(order.rigs, order.said_s)};
  if (out.saidTooLate) return out;
  std::vector<std::string> names;
  for (const RigId rig : order.rigs) names.push_back(day.name(rig));
  out.pairs = orderForetold(names, day.spread(order.reading));
  return out;
}

bool scored(ForetoldState state) {
  return state == ForetoldState::CameTrue || state == ForetoldState::CameFalse;
}

}  // namespace

std::optional<double> brierScore(const std::vector<ForetoldFact>& facts) {
  double sum = 0.0, n = 0.0;
  for (const ForetoldFact& fact : facts) {
    if (!fact.was) continue;
    const double off = fact.chance - (*fact.was ? 1.0 : 0.0);
    sum += off * off;
    n += 1.0;
  }
  if (n == 0.0) return std::nullopt;
  return sum / n;
}

std::optional<OrderForetold> orderForetold(const std::vector<std::string>& order, const Spread& spread) {
  OrderForetold out;
  for (const RigPair& pair : spread.pairs) {
    if (!pair.apart) continue;
    const auto higher = std::find(order.begin(), order.end(), spread.rigs[pair.a].rig);
    const auto lower = std::find(order.begin(), order.end(), spread.rigs[pair.b].rig);
    if (higher == order.end() || lower == order.end()) continue;
    ++out.apart;
    if (higher > lower) ++out.reversed;
  }
  if (out.apart == 0) return std::nullopt;
  return out;
}

ForecastOutcome outcomeOf(const DayPlan& day, const std::vector<ComparedPass>& passes) {
  ForecastOutcome out;
  ReadDay read(day, passes);
  std::vector<ForetoldFact> facts;
  for (const ForetoldLine& line : day.foretold.lines) {
    out.lines.push_back(lineOutcome(read, line));
    const ForetoldState state = out.lines.back().state;
    if (scored(state)) facts.push_back({line.chance, state == ForetoldState::CameTrue});
  }
  for (const ForetoldOrder& order : day.foretold.orders) out.orders.push_back(orderOutcome(read, order));
  out.brier = brierScore(facts);
  return out;
}

std::vector<EyeAbove> eyeAbove(const std::vector<DayPlan>& days,
                               const std::vector<ForecastOutcome>& outcomes) {
  std::map<ReadingId, EyeAbove> byReading;
  for (std::size_t d = 0; d < days.size() && d < outcomes.size(); ++d) {
    for (std::size_t i = 0; i < days[d].foretold.lines.size(); ++i) {
      const ForetoldLine& line = days[d].foretold.lines[i];
      const ForetoldState state = outcomes[d].lines[i].state;
      if (!scored(state)) continue;
      EyeAbove& one = byReading[line.reading];
      one.reading = line.reading;
      ++one.lines;
      one.foretold += line.over ? line.chance : 1.0 - line.chance;
      one.came += (state == ForetoldState::CameTrue) == line.over ? 1.0 : 0.0;
    }
  }
  std::vector<EyeAbove> out;
  for (auto& [reading, one] : byReading) {
    one.foretold /= static_cast<double>(one.lines);
    one.came /= static_cast<double>(one.lines);
    out.push_back(one);
  }
  std::stable_sort(out.begin(), out.end(),
                   [](const EyeAbove& a, const EyeAbove& b) { return a.lines > b.lines; });
  return out;
}

Result<double> apparentDepth(GramsPerKilogram salinity) {
  const auto seen = apparentDistance({.water = Millimetres(1.0)}, salinity);
  if (!seen) return tl::unexpected(seen.error());
  return seen->value();
}

}  // namespace fin
