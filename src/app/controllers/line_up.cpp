// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/line_up.h"

#include <algorithm>

#include "app/controllers/pass_controller.h"

namespace fin::app {
namespace {

/// "braid / wire"
QString among(const std::vector<std::string>& values) {
  QStringList out;
  for (const std::string& v : values) out += v.empty() ? QObject::tr("not said") : QString::fromStdString(v);
  return out.join(" / ");
}

QString sentenceOn(const Unequal& unequal, UnitSystem units) {
  const QString values = among(unequal.values);
  switch (unequal.what) {
    case Unequal::What::PullSpeed:
      return QObject::tr("Pulled at different speeds: about %1 to %2.")
          .arg(spokenPull(unequal.least, units), spokenPull(unequal.most, units));
    case Unequal::What::Cadence:
      return QObject::tr("Worked at a different cadence: %1 to %2 s from one to the next.")
          .arg(unequal.least, 0, 'f', 2)
          .arg(unequal.most, 0, 'f', 2);
    case Unequal::What::Camera:
      return QObject::tr("Heard by different cameras: %1. Loudness cannot be compared across them.")
          .arg(values);
    case Unequal::What::Line:
      return QObject::tr("Line differs: %1.").arg(values);
    case Unequal::What::LineStrength:
      return QObject::tr("Line strength, kg differs: %1.").arg(values);
    case Unequal::What::Link:
      return QObject::tr("Swivel or snap differs: %1.").arg(values);
    case Unequal::What::Hook:
      return QObject::tr("Hooks differ: %1.").arg(values);
    case Unequal::What::Head:
      return QObject::tr("Heads differ: %1.").arg(values);
    case Unequal::What::Light:
      return QObject::tr("The light changed: %1.").arg(values);
    case Unequal::What::Wind:
      return QObject::tr("The wind changed: %1.").arg(values);
    case Unequal::What::WaterTemperature:
      return QObject::tr("The water was %1 to %2.")
          .arg(spokenAmount(unequal.least, "°C", 1, units), spokenAmount(unequal.most, "°C", 1, units));
  }
  return {};
}

}  // namespace

LineUp::LineUp(const Log& log, const PassController& controller, const DayController& day, QObject* parent)
    : QObject(parent), log_(log), controller_(controller), day_(day) {}

void LineUp::refresh() {
  plans_ = {day_.plan()};
  std::erase_if(besides_, [this](DayId id) {
    const auto& days = day_.days();
    return std::none_of(days.begin(), days.end(), [id](const DayHead& d) { return d.id == id; });
  });
  for (const DayId id : besides_) {
    if (id == day_.plan().id) continue;
    auto plan = log_.plan(id);
    if (!plan) {
      emit told(QString::fromStdString(plan.error().message), true);
      continue;
    }
    plans_.push_back(std::move(*plan));
  }
  auto read = readingsOver(log_, plans_, fingerprints_);
  if (!read) {
    emit told(QString::fromStdString(read.error().message), true);
    return;
  }
  read_ = std::move(*read);
  emit changed();
}

void LineUp::setBesides(std::vector<DayId> days) {
  besides_ = std::move(days);
  refresh();
}

const PlannedPass* LineUp::plannedFor(const ComparedPass& pass) const {
  for (const DayPlan& plan : plans_) {
    const auto found = std::find_if(plan.sheet.begin(), plan.sheet.end(), [&](const PlannedPass& p) {
      return plan.id == pass.day && p.id == pass.planned;
    });
    if (found != plan.sheet.end()) return &*found;
  }
  return nullptr;
}

Result<ControlDrift> LineUp::driftOf(ReadingId reading) const {
  return fin::driftOf(read_.current, reading);
}

std::vector<Entry> LineUp::entries() const {
  std::vector<Entry> out;
  for (const ComparedPass& pass : read_.current) {
    const bool known = std::any_of(out.begin(), out.end(), [&](const Entry& e) { return e.rig == pass.rig; });
    if (known) continue;
    Entry entry{.rig = pass.rig, .model = pass.rig};
    const Rig* rig = rigOf(pass);
    const Model* model = rig == nullptr ? nullptr : day_.plan().rack.model(rig->model);
    if (model != nullptr) {
      entry.model = model->name;
      entry.graded = model->graded;
      entry.whyNotGraded = model->whyNotGraded;
      entry.price = model->price;
      entry.currency = model->currency;
      entry.length_mm = model->length_mm;
    }
    out.push_back(std::move(entry));
  }
  return out;
}

const Rig* LineUp::rigOf(const ComparedPass& pass) const {
  const Rack& rack = day_.plan().rack;
  const PlannedPass* planned = plannedFor(pass);
  if (planned != nullptr) return rack.rigOn(pass.day, planned->rig);
  // Made beside the day's sheet: what was said of it may still name a rig of the rack.
  const auto named = std::find_if(rack.rigs.begin(), rack.rigs.end(),
                                  [&](const Rig& rig) { return rack.fullName(rig) == pass.rig; });
  return named == rack.rigs.end() ? nullptr : &*named;
}

std::vector<PassConditions> LineUp::conditions() const {
  std::vector<PassConditions> out;
  for (const ComparedPass& pass : read_.current) {
    PassConditions& c = out.emplace_back(PassConditions{.pass = pass.id});
    if (const LoggedPass* logged = controller_.passWith(pass.id)) {
      c.camera = logged->camera;
      if (const auto& plane = logged->request.scalePlane) c.cameraDistance_mm = plane->cameraToLure.value();
    }
    if (const PlannedPass* planned = plannedFor(pass)) {
      c.light = planned->light;
      c.wind = planned->wind;
      c.water_C = planned->water_C;
    }
    const Rig* rig = rigOf(pass);
    c.rigKnown = rig != nullptr;
    if (rig == nullptr) continue;
    c.line = rig->line;
    c.link = rig->link;
    c.lineStrength_kg = rig->lineStrength_kg;
    c.head_g = rig->head_g;
    c.hook = rig->hookSize;
  }
  return out;
}

QString LineUp::heardBy(const std::vector<ComparedPass>& passes) const {
  const auto cameras = camerasOf(passes, conditions());
  return cameras.size() < 2 ? QString() : among(cameras);
}

QStringList LineUp::differencesFor(ReadingId reading, std::optional<double> speed_mm_s) const {
  QStringList out;
  for (const Unequal& unequal : unequalConditions(read_.current, conditions(), reading, speed_mm_s))
    out += sentenceOn(unequal, day_.units());
  for (const HeldEqual& held : day_.plan().heldEqual) {
    if (held.exception.empty()) continue;
    out += tr("%1 was not the same for all: %2.")
               .arg(QString::fromStdString(held.what), QString::fromStdString(held.exception));
  }
  return out;
}

}  // namespace fin::app
