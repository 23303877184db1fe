// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/forecast.h"

#include <algorithm>
#include <map>

#include "core/calibration/refraction.h"

namespace fin {
namespace {

/// A reading of all rigs of a day, as the Line-up compares it.
class DaySpreads {
 public:
  explicit DaySpreads(const std::vector<ComparedPass>& passes) : passes_(passes) {}
  const Spread& of(ReadingId reading) {
    const auto known = spreads_.find(reading);
    if (known != spreads_.end()) return known->second;
    return spreads_[reading] = compare(valuesOf(passes_, reading, commonSpeed(passes_, reading)), reading);
  }

 private:
  const std::vector<ComparedPass>& passes_;
  std::map<ReadingId, Spread> spreads_;
};

/// When the first pass of one of these rigs was made; none where none was.
std::optional<double> firstMade(const DayPlan& day, const std::vector<RigId>& rigs) {
  std::optional<double> out;
  for (const PlannedPass& pass : day.sheet) {
    const bool one = std::find(rigs.begin(), rigs.end(), pass.rig) != rigs.end();
    if (one && pass.state == PassState::Done && pass.finished_s > 0.0 && (!out || pass.finished_s < *out))
      out = pass.finished_s;
  }
  return out;
}

bool tooLate(const DayPlan& day, const std::vector<RigId>& rigs, double said_s) {
  const auto made = firstMade(day, rigs);
  return made && said_s >= *made;
}

LineOutcome lineOutcome(const DayPlan& day, const ForetoldLine& line, DaySpreads& spreads) {
  LineOutcome out;
  const Spread& spread = spreads.of(line.reading);
  const std::string name = day.rack.nameOn(day.id, line.rig);
  const auto rig = std::find_if(spread.rigs.begin(), spread.rigs.end(),
                                [&name](const RigMean& r) { return r.rig == name; });
  if (rig != spread.rigs.end()) out.read = ReadRange{rig->from, rig->to};
  if (tooLate(day, {line.rig}, line.said_s)) {
    out.state = ForetoldState::SaidTooLate;
  } else if (out.read && (out.read->from > line.line || out.read->to < line.line)) {
    const bool over = out.read->from > line.line;
    out.state = over == line.over ? ForetoldState::CameTrue : ForetoldState::CameFalse;
  } else if (out.read) {
    out.state = ForetoldState::AcrossTheLine;
  }
  return out;
}

OrderOutcome orderOutcome(const DayPlan& day, const ForetoldOrder& order, DaySpreads& spreads) {
  OrderOutcome out{.saidTooLate = tooLate(day, order.rigs, order.said_s)};
  if (out.saidTooLate) return out;
  std::vector<std::string> names;
  for (const RigId rig : order.rigs) names.push_back(day.rack.nameOn(day.id, rig));
  out.pairs = orderForetold(names, spreads.of(order.reading));
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
  DaySpreads spreads(passes);
  std::vector<ForetoldFact> facts;
  for (const ForetoldLine& line : day.foretold.lines) {
    out.lines.push_back(lineOutcome(day, line, spreads));
    const ForetoldState state = out.lines.back().state;
    if (scored(state)) facts.push_back({line.chance, state == ForetoldState::CameTrue});
  }
  for (const ForetoldOrder& order : day.foretold.orders)
    out.orders.push_back(orderOutcome(day, order, spreads));
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
