// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/catches/effort.h"

#include <algorithm>
#include <map>
#include <numeric>
#include <random>

namespace fin {
namespace {

constexpr double kMinute_s = 60.0;

bool isTouch(RunEventKind kind) {
  return kind == RunEventKind::Caught || kind == RunEventKind::Missed || kind == RunEventKind::Followed;
}
bool comesOfARod(RunEventKind kind) {
  return isTouch(kind) || kind == RunEventKind::Fouled || kind == RunEventKind::Lost;
}

/// Goes through the events with the clock.
class Runner {
 public:
  Runner(int rods, double now_s) : now_s_(now_s) {
    for (int rod = 1; rod <= rods; ++rod) day_.rods.push_back({.rod = rod});
    begun_.resize(day_.rods.size());
  }

  RunningDay run(const std::vector<RunEvent>& events) {
    for (const RunEvent& event : events) {
      if (event.at_s > now_s_) continue;  // noted for later, or by a clock that was ahead
      step(event);
    }
    if (day_.began_s > 0.0) day_.last_s = std::max(day_.last_s, now_s_);
    for (std::size_t i = 0; i < day_.rods.size(); ++i) end(i, day_.last_s);
    return std::move(day_);
  }

 private:
  void step(const RunEvent& event) {
    double at = event.at_s;
    if (at < day_.last_s) {
      if (!wentBack_) day_.troubles.emplace_back("The clock went back; that time is counted as none.");
      wentBack_ = true;
      at = day_.last_s;
    }
    day_.last_s = at;
    if (event.kind == RunEventKind::Tier) {
      day_.tier = event.tier;
      split(at);
    } else if (event.kind == RunEventKind::Gap) {
      if (!event.fished) gap(event.at_s, event.until_s);
    } else if (event.rod >= 1 && static_cast<std::size_t>(event.rod) <= day_.rods.size()) {
      onRod(event, static_cast<std::size_t>(event.rod - 1), at);
    }
  }

  void onRod(const RunEvent& event, std::size_t i, double at) {
    RodNow& rod = day_.rods[i];
    if (comesOfARod(event.kind)) touch(event, rod, at);
    switch (event.kind) {
      case RunEventKind::Tie:
        end(i, at);
        rod.rig = event.rig;
        rod.piece = event.piece;
        rod.speed_mm_s = event.speed_mm_s;
        if (rod.working) begin(i, at, event.block);
        break;
      case RunEventKind::Fish:
        if (rod.working) end(i, at);
        rod.working = true;
        begin(i, at, event.block);
        break;
      case RunEventKind::Rest:
        end(i, at);
        rod.working = false;
        break;
      case RunEventKind::Lost:  // there is nothing on it now
        end(i, at);
        rod.working = false;
        rod.rig = {};
        rod.piece = {};
        break;
      default:
        break;
    }
  }

  void touch(const RunEvent& event, const RodNow& rod, double at) {
    Touch out{.event = event.id, .kind = event.kind, .rig = event.rig, .piece = event.piece, .at_s = at};
    const auto& stint = begun_[static_cast<std::size_t>(rod.rod - 1)];
    if (!out.rig && rod.working) {
      out.rig = rod.rig;
      out.piece = rod.piece;
    }
    if (stint) out.block = stint->block;
    if (event.block > 0) out.block = event.block;
    if (!out.rig)
      day_.troubles.emplace_back("Something was noted after the rod was put down: say on which rig it came.");
    day_.touches.push_back(out);
  }

  void begin(std::size_t i, double at, int block) {
    const RodNow& rod = day_.rods[i];
    if (day_.began_s == 0.0) day_.began_s = at;
    begun_[i] = Stint{.rod = rod.rod,
                      .rig = rod.rig,
                      .piece = rod.piece,
                      .from_s = at,
                      .speed_mm_s = rod.speed_mm_s,
                      .block = block,
                      .tier = day_.tier};
  }
  void end(std::size_t i, double at) {
    if (!begun_[i]) return;
    begun_[i]->to_s = at;
    if (begun_[i]->rig && at > begun_[i]->from_s) day_.stints.push_back(*begun_[i]);
    begun_[i].reset();
  }
  /// Another tier begins: what is at work goes on as a stint of its own.
  void split(double at) {
    for (std::size_t i = 0; i < begun_.size(); ++i) {
      if (!begun_[i]) continue;
      const int block = begun_[i]->block;
      end(i, at);
      begin(i, at, block);
    }
  }
  void gap(double from, double to) {
    for (auto& stint : begun_) {
      if (stint) stint->idle_s += std::max(0.0, to - std::max(from, stint->from_s));
    }
    day_.last_s = std::max(day_.last_s, std::min(to, now_s_));
  }

  double now_s_;
  RunningDay day_;
  std::vector<std::optional<Stint>> begun_;  ///< by rod
  bool wentBack_ = false;
};

/// Rod-minutes of a stint between two times.
double within(const Stint& stint, double from_s, double to_s) {
  const double whole = stint.to_s - stint.from_s;
  if (!(whole > 0.0)) return 0.0;
  const double part = std::max(0.0, std::min(stint.to_s, to_s) - std::max(stint.from_s, from_s)) / whole;
  return part * stint.hours() * 60.0;
}

double rodMinutes(const RunningDay& day, double from_s, double to_s) {
  double out = 0.0;
  for (const Stint& stint : day.stints) out += within(stint, from_s, to_s);
  return out;
}

}  // namespace

double RunningDay::rodHours() const {
  return std::accumulate(stints.begin(), stints.end(), 0.0,
                         [](double sum, const Stint& s) { return sum + s.hours(); });
}

std::size_t RunningDay::count(RunEventKind kind) const {
  return static_cast<std::size_t>(
      std::count_if(touches.begin(), touches.end(), [kind](const Touch& t) { return t.kind == kind; }));
}

double RunningDay::sinceTouch_rodMin() const {
  double from = began_s;
  for (const Touch& touch : touches) {
    if (isTouch(touch.kind)) from = std::max(from, touch.at_s);
  }
  return rodMinutes(*this, from, last_s);
}

std::optional<double> RunningDay::toFirstTouch_rodMin() const {
  for (const Touch& touch : touches) {
    if (isTouch(touch.kind)) return rodMinutes(*this, began_s, touch.at_s);
  }
  return std::nullopt;
}

RunningDay runOf(const std::vector<RunEvent>& events, int rods, double now_s) {
  return Runner(rods, now_s).run(events);
}

Wasted wastedOf(const RunningDay& day, const std::vector<TierRig>& bands, int rods) {
  Wasted out;
  if (day.began_s == 0.0) return out;
  for (const Stint& stint : day.stints) {
    const auto band = std::find_if(bands.begin(), bands.end(),
                                   [&stint](const TierRig& b) { return b.rig == stint.rig && !b.heard; });
    if (band == bands.end() || !stint.speed_mm_s) continue;
    if (*stint.speed_mm_s < band->from_mm_s || *stint.speed_mm_s > band->to_mm_s)
      out.outsideBand_rodMin += 60.0 * stint.hours();
  }
  const double all = static_cast<double>(rods) * (day.last_s - day.began_s) / kMinute_s;
  out.outOfWater_rodMin = std::max(0.0, all - 60.0 * day.rodHours());
  return out;
}

std::vector<RigTally> talliesOf(const std::vector<RunningDay>& days) {
  std::vector<RigTally> out;
  const auto of = [&out](RigId rig) -> RigTally& {
    const auto found =
        std::find_if(out.begin(), out.end(), [rig](const RigTally& t) { return t.rig == rig; });
    if (found != out.end()) return *found;
    out.push_back({.rig = rig});
    return out.back();
  };
  for (const RunningDay& day : days) {
    for (const Stint& stint : day.stints) of(stint.rig).hours += stint.hours();
    for (const Touch& touch : day.touches) {
      if (!touch.rig) continue;
      RigTally& tally = of(touch.rig);
      tally.fish += touch.kind == RunEventKind::Caught ? 1 : 0;
      tally.misses += touch.kind == RunEventKind::Missed ? 1 : 0;
      tally.follows += touch.kind == RunEventKind::Followed ? 1 : 0;
      tally.fouls += touch.kind == RunEventKind::Fouled ? 1 : 0;
      tally.lost += touch.kind == RunEventKind::Lost ? 1 : 0;
    }
  }
  return out;
}

std::vector<EffortBlock> blocksOf(const std::vector<RunningDay>& days, RigId first, RigId second) {
  std::map<std::pair<std::size_t, int>, EffortBlock> blocks;
  for (std::size_t d = 0; d < days.size(); ++d) {
    for (const Stint& stint : days[d].stints) {
      if (stint.block == 0) continue;
      EffortBlock& block = blocks[{d, stint.block}];
      if (stint.rig == first) block.hoursFirst += stint.hours();
      if (stint.rig == second) block.hoursSecond += stint.hours();
    }
    for (const Touch& touch : days[d].touches) {
      if (touch.block == 0 || touch.kind != RunEventKind::Caught) continue;
      EffortBlock& block = blocks[{d, touch.block}];
      block.first += touch.rig == first ? 1 : 0;
      block.second += touch.rig == second ? 1 : 0;
    }
  }
  std::vector<EffortBlock> out;
  for (const auto& [key, block] : blocks) {
    if (block.hoursFirst > 0.0 && block.hoursSecond > 0.0) out.push_back(block);
  }
  return out;
}

std::vector<bool> firstOnFirstRod(std::size_t blocks, unsigned seed) {
  std::mt19937 random(seed);
  std::vector<bool> out;
  while (out.size() < blocks) {
    const bool first = (random() & 1U) != 0;
    out.push_back(first);
    out.push_back(!first);
  }
  out.resize(blocks);
  return out;
}

}  // namespace fin
