// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_season.h"

#include <algorithm>
#include <array>

#include "core/units/date.h"
#include "demo/demo_passes.h"

namespace fin {
namespace {

constexpr double kHour_s = 3600.0;
constexpr double kDayLong_s = 86400.0;
constexpr std::int64_t kIdsOfADay = 100;

/// A rig at work for so long, with what came of it.
struct Work {
  RigId rig;
  double hours = 0.0;
  int fish = 0;
  double speed_mm_s = 300.0;
};
/// Both at once on two rods, as one block of place and hour.
struct Block {
  Work first;
  Work second;
};

struct WaterDay {
  const char* name = "";
  std::int64_t water = kCanal;
  int after_days = 0;
  std::vector<ConditionLine> conditions;  ///< at_s counts from the day's beginning
  std::vector<Block> blocks;
  std::vector<Work> besides;  ///< on whichever rod is free first
  bool losesAMirk = false;
};

ConditionLine number(Condition what, double value) {
  return {0.0, what, value, ""};
}
ConditionLine word(Condition what, const char* text) {
  return {0.0, what, {}, text};
}

Work vinto(double hours, int fish) {
  return {kVinto7, hours, fish, 450.0};
}
Work hasp(double hours, int fish) {
  return {kHasp, hours, fish, 260.0};
}

std::vector<WaterDay> waterDays() {
  using C = Condition;
  std::vector<WaterDay> out(4);
  out[0] = {.name = "Canal, a mild noon",
            .after_days = 5,
            .conditions = {number(C::SurfaceTemperature, 14.0), number(C::TemperatureChange, 0.5),
                           number(C::Clarity, 2.2), word(C::Wind, "scales"), word(C::Light, "bright"),
                           number(C::Cloud, 2.0), number(C::Current, 0.0), number(C::Depth, 3.5),
                           number(C::PreyLength, 70.0), word(C::PreyKnownBy, "seen"),
                           word(C::Place, "strange"), word(C::Cover, "piles")},
            .blocks = {{vinto(0.75, 1), hasp(1.0, 1)}},
            .besides = {vinto(0.75, 0),
                        hasp(1.0, 0),
                        {kVinto4, 1.0, 0},
                        {kSkrell, 1.0, 0},
                        {kOblig, 2.0, 1},
                        {kOblag, 1.5, 2},
                        {kTavver, 1.0, 0}}};
  out[1] = {.name = "Reservoir in the wind",
            .water = kReservoir,
            .after_days = 26,
            .conditions = {number(C::SurfaceTemperature, 11.0), number(C::Wind, 6.0),
                           number(C::WindDirection, 250.0), number(C::Cloud, 8.0), word(C::Light, "dull"),
                           number(C::Depth, 5.0), word(C::FishDepth, "low"), word(C::Place, "known"),
                           word(C::Cover, "edge")},
            .blocks = {{vinto(1.0, 3), hasp(1.0, 0)}, {vinto(1.0, 1), hasp(1.0, 1)}},
            .besides = {
                {kVinto4, 1.0, 1}, {kSkrell, 1.0, 1}, {kOblig, 1.5, 1}, {kOblag, 1.0, 0}, {kTavver, 1.0, 0}}};
  out[2] = {
      .name = "Canal mouth at dusk",
      .after_days = 47,
      .conditions = {number(C::SurfaceTemperature, 8.0), number(C::Clarity, 0.8), number(C::Current, 0.3),
                     word(C::Light, "dusk"), word(C::Pull, "with the current"), number(C::Depth, 3.0),
                     word(C::Place, "known"), word(C::Bottom, "stone"), word(C::Cover, "wood")},
      .blocks = {{vinto(1.0, 2), hasp(1.0, 1)}, {vinto(0.5, 0), hasp(0.5, 0)}},
      .besides = {vinto(0.5, 0),
                  hasp(0.5, 0),
                  {kVinto4, 1.0, 0},
                  {kMirk7, 2.0, 1},
                  {kSkrell, 1.0, 1},
                  {kOblig, 1.0, 0},
                  {kTavver, 1.0, 0}},
      .losesAMirk = true};
  out[3] = {
      .name = "Reservoir like glass",
      .water = kReservoir,
      .after_days = 61,
      .conditions = {number(C::SurfaceTemperature, 5.0), number(C::TemperatureChange, -2.5),
                     word(C::Wind, "mirror"), word(C::Light, "bright"), number(C::Clarity, 3.5),
                     number(C::Depth, 4.5), word(C::FishDepth, "low"), word(C::Fish, "follow"),
                     word(C::Place, "known"), word(C::MuchFished, "yes")},
      .blocks = {{vinto(1.0, 2), hasp(0.75, 0)}},
      .besides = {hasp(0.25, 0), {kVinto4, 1.0, 0}, {kSkrell, 2.0, 4}, {kOblig, 1.0, 0}, {kOblag, 1.0, 0}}};
  return out;
}

/// Plays a day on two rods.
class Played {
 public:
  Played(std::int64_t firstId, double begin_s) : id_(firstId), free_{begin_s, begin_s} {}

  void together(const Block& block, int number) {
    // Who has which rod is swapped from block to block.
    const std::size_t one = number % 2 == 1 ? 0 : 1;
    const double from = std::max(free_[0], free_[1]);
    free_ = {from, from};
    work(block.first, one, number);
    work(block.second, 1 - one, number);
  }
  void onFreeRod(const Work& one) { work(one, free_[0] <= free_[1] ? 0 : 1, 0); }
  /// The rod that has this rig loses it at the end.
  void lose(RigId rig, PieceId piece) {
    const auto tied = std::find_if(events_.rbegin(), events_.rend(), [rig](const RunEvent& e) {
      return e.kind == RunEventKind::Rest && e.rig == rig;
    });
    if (tied == events_.rend()) return;
    tied->kind = RunEventKind::Lost;
    tied->piece = piece;
  }
  std::vector<RunEvent> events() && {
    std::stable_sort(events_.begin(), events_.end(),
                     [](const RunEvent& a, const RunEvent& b) { return a.at_s < b.at_s; });
    for (RunEvent& event : events_) event.id = id_++;
    return std::move(events_);
  }

 private:
  void note(RunEventKind kind, std::size_t rod, double at_s, const Work& one, int block) {
    events_.push_back({.at_s = at_s,
                       .kind = kind,
                       .rod = static_cast<int>(rod) + 1,
                       .rig = one.rig,
                       .speed_mm_s = kind == RunEventKind::Tie ? std::optional(one.speed_mm_s) : std::nullopt,
                       .block = block});
  }
  void work(const Work& one, std::size_t rod, int block) {
    const double from = free_[rod];
    const double to = from + one.hours * kHour_s;
    note(RunEventKind::Tie, rod, from, one, block);
    note(RunEventKind::Fish, rod, from, one, block);
    for (int n = 0; n < one.fish; ++n) {
      note(RunEventKind::Caught, rod, from + (to - from) * (n + 1.0) / (one.fish + 1.0), one, block);
      events_.back().on = n % 2 == 0 ? TakenOn::Pause : TakenOn::Pull;
      events_.back().hooked = HookedWhere::Mouth;
      events_.back().length_mm = 420.0 + 37.0 * n;
      events_.back().released = true;
    }
    if (one.fish > 1) note(RunEventKind::Missed, rod, from + 0.95 * (to - from), one, block);
    note(RunEventKind::Rest, rod, to, one, block);
    free_[rod] = to;
  }

  std::int64_t id_;
  std::array<double, 2> free_;
  std::vector<RunEvent> events_;
};

}  // namespace

std::vector<DayPlan> demoWaterDays(const DayPlan& first, double morning_s) {
  std::vector<DayPlan> out;
  std::int64_t id = kFirstWaterDay;
  for (const WaterDay& day : waterDays()) {
    const double begin = morning_s + kDayLong_s * day.after_days;
    DayPlan plan;
    plan.id = id;
    plan.kind = DayKind::Water;
    plan.rack = first.rack;
    plan.waters = first.waters;
    plan.waterBody = day.water;
    plan.name = day.name;
    plan.date = dateAt(begin);
    plan.people = first.people;
    plan.conditions = day.conditions;
    for (ConditionLine& line : plan.conditions) line.at_s += begin;
    Played played(id + 1, begin);
    int block = 0;
    for (const Block& both : day.blocks) played.together(both, ++block);
    for (const Work& one : day.besides) played.onFreeRod(one);
    if (day.losesAMirk) played.lose(kMirk7, 103);
    plan.events = std::move(played).events();
    out.push_back(std::move(plan));
    id += kIdsOfADay;
  }
  return out;
}

Foretold demoForecast(double morning_s) {
  const double said = morning_s - kHour_s;
  Foretold out;
  out.lines = {{kVinto7, ReadingId::FallRate, true, 250.0, 0.8, said},
               {kVinto4, ReadingId::FallRate, true, 150.0, 0.7, said},
               {kMirk7, ReadingId::FallRate, true, 150.0, 0.9, said},
               {kSkrell, ReadingId::RollAngle, true, 40.0, 0.6, said},
               {kHasp, ReadingId::WobbleFrequency, true, 5.0, 0.7, said}};
  out.orders = {{ReadingId::FallRate, {kVinto7, kMirk7, kVinto4}, said}};
  return out;
}

}  // namespace fin
