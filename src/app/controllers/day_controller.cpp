// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/day_controller.h"

#include <QDateTime>
#include <QLocale>
#include <algorithm>

#include "core/season/retest.h"

namespace fin::app {
namespace {

double wallClock_s() {
  return static_cast<double>(QDateTime::currentMSecsSinceEpoch()) / 1000.0;
}

std::optional<std::size_t> lastMade(const std::vector<PlannedPass>& sheet) {
  std::optional<std::size_t> last;
  for (std::size_t i = 0; i < sheet.size(); ++i) {
    if (sheet[i].state != PassState::Planned && (!last || sheet[i].finished_s >= sheet[*last].finished_s))
      last = i;
  }
  return last;
}

}  // namespace

DayController::DayController(Log& log, Edits& edits, QObject* parent)
    : QObject(parent), log_(log), edits_(edits) {
  readDays();
  read(days_.back().id);
}

void DayController::readDays() {
  auto days = log_.days();
  if (days) days_ = std::move(*days);
  if (days_.empty()) days_ = {DayHead{.id = 1}};
}

QString DayController::dayName(DayId id) const {
  const auto day = std::find_if(days_.begin(), days_.end(), [id](const DayHead& d) { return d.id == id; });
  if (day == days_.end()) return {};
  const QDate date = QDate::fromString(QString::fromStdString(day->date), Qt::ISODate);
  const bool sameYear = date.year() == QDate::currentDate().year();
  QStringList parts;
  if (date.isValid()) parts += QLocale::c().toString(date, sameYear ? "d MMM" : "d MMM yyyy");
  if (!day->name.empty()) parts += QString::fromStdString(day->name);
  if (parts.isEmpty()) return day->kind == DayKind::Water ? tr("a day on the water") : tr("a test day");
  return parts.join(", ");
}

void DayController::choose(DayId day) {
  if (day == plan_.id) return;
  readDays();
  read(day);
}

void DayController::begin(const QString& what, DayPlan fresh) {
  DayPlan none;
  none.id = fresh.id;
  none.rack = plan_.rack;
  none.waters = plan_.waters;
  none.rules = plan_.rules;
  const DayId before = plan_.id;
  const auto begun = std::make_shared<bool>(false);
  (void)edits_.perform(
      what,
      [this, none, fresh, begun]() -> Result<void> {
        if (auto done = *begun ? log_.hideDay(fresh.id, false) : log_.savePlan(none, fresh); !done)
          return done;
        *begun = true;
        choose(fresh.id);
        return {};
      },
      [this, before, day = fresh.id]() -> Result<void> {
        if (auto done = log_.hideDay(day, true); !done) return done;
        choose(before);
        return {};
      });
}

void DayController::beginDay(DayKind kind, const QString& date) {
  DayPlan fresh = plan_;
  fresh.id = freeId();
  fresh.kind = kind;
  fresh.date = date.toStdString();
  fresh.name.clear();
  clearWhatHappened(fresh);
  for (HeldEqual& held : fresh.heldEqual) held.exception.clear();
  begin(kind == DayKind::Water ? tr("Begin a day on the water") : tr("Begin a test day"), std::move(fresh));
}

void DayController::beginRetest(const QString& date, const QString& change) {
  const std::int64_t id = freeId();
  begin(tr("Test this day again"), retestOf(plan_, id, date.toStdString(), change.toStdString()));
}

void DayController::hideDay() {
  const DayId day = plan_.id;
  const auto other =
      std::find_if(days_.rbegin(), days_.rend(), [day](const DayHead& d) { return d.id != day; });
  if (other == days_.rend()) return emit told(tr("This is the only day of the log."), true);
  (void)edits_.perform(
      tr("Take the day out"),
      [this, day, next = other->id]() -> Result<void> {
        if (auto done = log_.hideDay(day, true); !done) return done;
        choose(next);
        return {};
      },
      [this, day]() -> Result<void> {
        if (auto done = log_.hideDay(day, false); !done) return done;
        choose(day);
        return {};
      });
}

void DayController::reload() {
  readDays();
  const bool there =
      std::any_of(days_.begin(), days_.end(), [this](const DayHead& d) { return d.id == plan_.id; });
  read(there ? plan_.id : days_.back().id);
}

void DayController::read(DayId day) {
  auto plan = log_.plan(day);
  if (!plan) {
    emit told(QString::fromStdString(plan.error().message), true);
    return;
  }
  const bool other = plan_.id != day;
  plan_ = std::move(*plan);
  if (other) emit dayChosen();
  emit planChanged();
}

void DayController::takeEvents(DayId from, const std::vector<EventId>& events) {
  const auto there = log_.plan(from);
  if (!there) return emit told(QString::fromStdString(there.error().message), true);
  DayPlan less = *there;
  DayPlan more = plan_;
  std::erase_if(less.events, [&](const RunEvent& event) {
    const bool goes = std::find(events.begin(), events.end(), event.id) != events.end();
    if (goes) more.events.push_back(event);
    return goes;
  });
  if (less == *there) return;
  std::stable_sort(more.events.begin(), more.events.end(),
                   [](const RunEvent& a, const RunEvent& b) { return a.at_s < b.at_s; });
  // Both days are written, or none.
  const auto swap = [this](const DayPlan& other, const DayPlan& otherAfter, const DayPlan& here,
                           const DayPlan& hereAfter) -> Result<void> {
    const auto done = log_.together([&]() -> Result<void> {
      if (auto saved = log_.savePlan(other, otherAfter); !saved) return saved;
      return log_.savePlan(here, hereAfter);
    });
    if (!done) return done;
    readDays();
    emit otherDayChanged();
    read(here.id);
    return done;
  };
  (void)edits_.perform(
      tr("Move to another day"),
      [swap, was = *there, less, here = plan_, more] { return swap(was, less, here, more); },
      [swap, was = *there, less, here = plan_, more] { return swap(less, was, more, here); });
}

void DayController::edit(const QString& what, const std::function<void(DayPlan&)>& change) {
  const Rack before = plan_.rack;
  const bool done = edits_.swap<DayPlan>(
      what, plan_, change, [this](const DayPlan& from, const DayPlan& to) { return write(from, to); });
  if (!done) return emit planChanged();  // fields go back to what stands
  if (!(before == plan_.rack)) tellChangedRigs(before);
}

namespace {

/// What is only heard of a rig is no other way of tying it.
bool tiedAlike(Rig a, const Rig& b) {
  a.heard = b.heard;
  return a == b;
}

}  // namespace

void DayController::tellChangedRigs(const Rack& before) {
  for (const Rig& now : plan_.rack.rigs) {
    const Rig* was = before.rig(now.id);
    if (was == nullptr || tiedAlike(*was, now)) continue;
    auto days = log_.daysOf(now.id);
    if (!days) continue;
    // What is said of earlier days already stays as it is.
    std::erase_if(*days, [&](DayId day) { return day == plan_.id || plan_.rack.rigOn(day, now.id) != &now; });
    if (!days->empty()) emit rigChanged(*was, *days);
  }
}

Result<void> DayController::write(const DayPlan& before, const DayPlan& after) {
  if (auto done = log_.savePlan(before, after); !done) return done;
  if (plan_.id != after.id) {
    choose(after.id);
    return {};
  }
  plan_ = after;
  readDays();
  emit planChanged();
  return {};
}

std::int64_t DayController::freeId() const {
  std::int64_t free = plan_.rack.nextId();
  for (const PlannedPass& pass : plan_.sheet) free = std::max(free, pass.id.value() + 1);
  return std::max(free, log_.freeId().value_or(free));
}

const PlannedPass* DayController::now() const {
  const auto next = nextPass(plan_.sheet);
  return next ? &plan_.sheet[*next] : nullptr;
}

const PlannedPass* DayController::after() const {
  const auto next = nextPass(plan_.sheet);
  if (!next) return nullptr;
  for (std::size_t i = *next + 1; i < plan_.sheet.size(); ++i) {
    if (plan_.sheet[i].state == PassState::Planned) return &plan_.sheet[i];
  }
  return nullptr;
}

const PlannedPass* DayController::planned(PlannedPassId id) const {
  const auto found =
      std::find_if(plan_.sheet.begin(), plan_.sheet.end(), [id](const PlannedPass& p) { return p.id == id; });
  return found == plan_.sheet.end() ? nullptr : &*found;
}

QString DayController::titleOf(const PlannedPass& pass) const {
  if (!pass.label.empty()) return tr("Rig %1").arg(QString::fromStdString(pass.label));
  const Rig* rig = plan_.rack.rig(pass.rig);
  return rig == nullptr ? tr("a rig no longer on the rack")
                        : QString::fromStdString(plan_.rack.fullName(*rig));
}

QString DayController::taskOf(const PlannedPass& pass) const {
  QString out = QString("%1, %2").arg(spokenName(pass.protocol), spokenName(pass.view));
  if (pass.speed_mm_s) out += ", " + spokenPull(*pass.speed_mm_s, units_);
  if (pass.control) out += tr(", control");
  if (pass.attempt > 1) out += tr(", attempt %1").arg(pass.attempt);
  return out;
}

void DayController::setUnits(UnitSystem units) {
  units_ = units;
  emit planChanged();
}

void DayController::finishNow(PassState state, const QString& whyFouled) {
  const auto next = nextPass(plan_.sheet);
  if (!next) return;
  const QString what = state == PassState::Done     ? tr("Pass done")
                       : state == PassState::Fouled ? tr("Pass fouled")
                                                    : tr("Pass skipped");
  edit(what, [&](DayPlan& plan) {
    PlannedPass& pass = plan.sheet[*next];
    pass.state = state;
    pass.whyFouled = whyFouled.toStdString();
    pass.finished_s = wallClock_s();
  });
}

void DayController::makeLastAgain() {
  const auto last = lastMade(plan_.sheet);
  if (!last) return;
  const PlannedPassId id = freeId();
  edit(tr("Make the last pass again"), [&](DayPlan& plan) {
    const auto next = nextPass(plan.sheet).value_or(plan.sheet.size());
    plan.sheet.insert(plan.sheet.begin() + static_cast<std::ptrdiff_t>(next),
                      againAfter(plan.sheet[*last], id));
  });
}

void DayController::noteNow(const QString& note) {
  const auto next = nextPass(plan_.sheet);
  if (!next) return;
  edit(tr("Note on the pass"), [&](DayPlan& plan) { plan.sheet[*next].note = note.toStdString(); });
}

void DayController::fromNowOn(const QString& what, const std::function<void(PlannedPass&)>& say) {
  edit(what, [&say](DayPlan& plan) {
    for (PlannedPass& pass : plan.sheet) {
      if (pass.state == PassState::Planned) say(pass);
    }
  });
}

void DayController::sayLineOut(double line_mm) {
  fromNowOn(tr("Line out"), [line_mm](PlannedPass& pass) {
    pass.lineOut_mm = line_mm > 0.0 ? std::optional(line_mm) : std::nullopt;
  });
}

void DayController::sayWeather(const Weather& weather) {
  fromNowOn(tr("Light, wind and water"), [&weather](PlannedPass& pass) {
    pass.light = weather.light.trimmed().toStdString();
    pass.wind = weather.wind.trimmed().toStdString();
    pass.water_C = weather.water_C;
    pass.salinity_g_kg = weather.salinity_g_kg;
  });
}

Result<void> DayController::makeSheet() {
  std::vector<RigId> rigs;
  for (const Rig& rig : plan_.rack.rigs) rigs.push_back(rig.id);
  auto sheet = fin::makeSheet(rigs, plan_.options);
  if (!sheet) return tl::unexpected(sheet.error());
  // A number of the earlier sheet may be a clip's.
  for (PlannedPass& pass : *sheet) pass.id = pass.id.value() + freeId() - 1;
  edit(tr("Make the pass sheet"), [&](DayPlan& plan) { plan.sheet = std::move(*sheet); });
  return {};
}

}  // namespace fin::app
