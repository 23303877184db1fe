// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/water_controller.h"

#include <QDateTime>
#include <algorithm>

namespace fin::app {
namespace {

constexpr double kSameNote_s = 60.0;

double wallClock_s() {
  return static_cast<double>(QDateTime::currentMSecsSinceEpoch()) / 1000.0;
}

/// The last fish of the day; null where none was caught.
RunEvent* lastFish(std::vector<RunEvent>& events) {
  const auto fish = std::find_if(events.rbegin(), events.rend(),
                                 [](const RunEvent& e) { return e.kind == RunEventKind::Caught; });
  return fish == events.rend() ? nullptr : &*fish;
}

}  // namespace

WaterController::WaterController(const Log& log, DayController& days, std::function<double()> now_s,
                                 QObject* parent)
    : QObject(parent), log_(log), days_(days), now_s_(now_s ? std::move(now_s) : wallClock_s) {
  connect(&days, &DayController::otherDayChanged, this, &WaterController::readAnew);
  connect(&days, &DayController::planChanged, this, &WaterController::planChanged);
}

/// What was measured is not read again for every key that is pressed at the water.
void WaterController::planChanged() {
  candidates_.reset();
  if (season_) {
    const DayPlan& now = plan();
    const auto known = std::find_if(season_->days.begin(), season_->days.end(),
                                    [&now](const DayPlan& d) { return d.id == now.id; });
    const bool same = season_->rack == now.rack && (known != season_->days.end()) == onTheWater();
    if (same && onTheWater()) {
      *known = now;
      season_->runs[static_cast<std::size_t>(known - season_->days.begin())] = run();
    }
    if (same) season_->rules = now.rules.empty() ? usualRules() : now.rules;
    if (!same) season_.reset();
  }
  emit changed();
}

void WaterController::readAnew() {
  season_.reset();
  candidates_.reset();
  if (onTheWater()) emit changed();
}

const WaterSeason& WaterController::season() const {
  if (!season_) {
    auto season = waterSeason(log_, fingerprints_, now());
    season_ = season ? std::move(*season) : WaterSeason{.rules = usualRules()};
  }
  return *season_;
}

const std::vector<TieCandidate>& WaterController::candidates() const {
  if (!candidates_) candidates_ = candidatesFor(season(), plan());
  return *candidates_;
}

QString WaterController::rigName(RigId rig) const {
  const Rig* known = plan().rack.rig(rig);
  return known == nullptr ? QString() : QString::fromStdString(plan().rack.fullName(*known));
}

void WaterController::note(const ConditionLine& line) {
  days_.edit(tr("Note the water"), [&](DayPlan& plan) {
    ConditionLine now = line;
    now.at_s = lookedAt();
    auto& lines = plan.conditions;
    const auto just = std::find_if(lines.rbegin(), lines.rend(), [&](const ConditionLine& l) {
      return l.what == now.what && now.at_s - l.at_s < kSameNote_s;
    });
    if (just != lines.rend()) {
      *just = now;
    } else {
      lines.push_back(now);
    }
  });
}

void WaterController::takeBackNote(std::size_t line) {
  days_.edit(tr("Take back a note"), [line](DayPlan& plan) {
    if (line < plan.conditions.size())
      plan.conditions.erase(plan.conditions.begin() + static_cast<std::ptrdiff_t>(line));
  });
}

void WaterController::setSchool(SchoolSide one, SchoolSide other, SchoolSide chosen) {
  days_.edit(tr("Choose a school"), [&](DayPlan& plan) {
    std::erase_if(plan.waterDay.schools, [&](SchoolSide side) { return side == one || side == other; });
    if (chosen != SchoolSide::None) plan.waterDay.schools.push_back(chosen);
  });
}

void WaterController::editRules(const QString& what,
                                const std::function<void(std::vector<TieRule>&)>& change) {
  const std::int64_t first = days_.freeId();
  days_.edit(what, [&](DayPlan& plan) {
    if (plan.rules.empty()) {
      plan.rules = usualRules();
      for (std::size_t i = 0; i < plan.rules.size(); ++i)
        plan.rules[i].id = first + static_cast<std::int64_t>(i);
    }
    change(plan.rules);
  });
}

std::optional<double> WaterController::speedFor(RigId rig) const {
  for (const TierRig& band : season().bands) {
    if (band.rig == rig) return 0.5 * (band.from_mm_s + band.to_mm_s);
  }
  return std::nullopt;
}

int WaterController::blockNow() const {
  int out = 0;
  for (const RunEvent& event : plan().events) out = std::max(out, event.block);
  return out;
}

void WaterController::add(const QString& what, RunEvent event) {
  const std::int64_t id = days_.freeId();
  days_.edit(what, [&](DayPlan& plan) {
    event.id = id;
    if (event.at_s == 0.0) event.at_s = lookedAt();
    plan.events.push_back(event);
  });
}

void WaterController::tie(int rod, RigId rig) {
  add(tr("Tie on"),
      {.kind = RunEventKind::Tie, .rod = rod, .rig = rig, .speed_mm_s = speedFor(rig), .block = blockNow()});
}

void WaterController::toggleRod(int rod) {
  const RunningDay now = run();
  const bool working = now.rods[static_cast<std::size_t>(rod - 1)].working;
  add(working ? tr("Take the rod in") : tr("Put the rod to work"),
      {.kind = working ? RunEventKind::Rest : RunEventKind::Fish,
       .rod = rod,
       .block = working ? 0 : blockNow()});
}

void WaterController::came(int rod, RunEventKind kind, RigId of) {
  const RunningDay now = run();
  const RodNow& held = now.rods[static_cast<std::size_t>(rod - 1)];
  const RigId rig = of ? of : held.working ? held.rig : RigId();
  const std::int64_t id = days_.freeId();
  days_.edit(tr("Note what came"), [&](DayPlan& plan) {
    plan.events.push_back(
        {.id = id, .at_s = lookedAt(), .kind = kind, .rod = rod, .rig = rig, .piece = held.piece});
    if (kind != RunEventKind::Lost) return;
    for (Piece& piece : plan.rack.pieces) {
      if (piece.id == held.piece) piece.state = PieceState::Lost;
    }
  });
}

void WaterController::detail(const std::function<void(RunEvent&)>& say) {
  days_.edit(tr("Say more of the fish"), [&say](DayPlan& plan) {
    if (RunEvent* fish = lastFish(plan.events)) say(*fish);
  });
}

void WaterController::takeTier(int tier) {
  add(tr("Go to another tier"), {.kind = RunEventKind::Tier, .tier = tier});
}

void WaterController::gap(double from_s, double to_s, bool fished) {
  add(tr("Say what a gap was"),
      {.at_s = from_s, .kind = RunEventKind::Gap, .until_s = to_s, .fished = fished});
}

/// Both rods from here on as one stretch of place and hour.
void WaterController::beginBlock() {
  const int block = blockNow() + 1;
  const RunningDay now = run();
  const std::int64_t id = days_.freeId();
  days_.edit(tr("Begin a stretch"), [&](DayPlan& plan) {
    std::int64_t next = id;
    for (const RodNow& rod : now.rods) {
      if (rod.working)
        plan.events.push_back(
            {.id = next++, .at_s = lookedAt(), .kind = RunEventKind::Fish, .rod = rod.rod, .block = block});
    }
  });
}

}  // namespace fin::app
