// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/line_up.h"

#include <algorithm>
#include <set>

#include "app/controllers/pass_controller.h"

namespace fin::app {
namespace {

constexpr double kUnequalCadence = 1.1;

/// "braid / wire"; nothing where all are the same.
QString unlike(const std::set<std::string>& values) {
  if (values.size() < 2) return {};
  QStringList out;
  for (const std::string& v : values) out += v.empty() ? QObject::tr("not said") : QString::fromStdString(v);
  return out.join(" / ");
}

/// Twitches at another pace are another test.
QString unequalCadence(const std::vector<ComparedPass>& passes) {
  double least = 1e300;
  double most = 0.0;
  for (const ComparedPass& pass : passes) {
    const auto interval =
        numberIn(pass.readings, pass.protocol == Protocol::Hop ? "hop_interval" : "twitch_interval");
    if (!interval) continue;
    least = std::min(least, *interval);
    most = std::max(most, *interval);
  }
  if (most <= kUnequalCadence * least) return {};
  return QObject::tr("Worked at a different cadence: %1 to %2 s from one to the next.")
      .arg(least, 0, 'f', 2)
      .arg(most, 0, 'f', 2);
}

}  // namespace

LineUp::LineUp(const Log& log, const PassController& controller, const DayController& day, QObject* parent)
    : QObject(parent), log_(log), controller_(controller), day_(day) {}

void LineUp::refresh() {
  auto read = dayReadings(log_, day_.plan(), fingerprints_);
  if (!read) {
    emit told(QString::fromStdString(read.error().message), true);
    return;
  }
  read_ = std::move(*read);
  takeOutDrift();
}

void LineUp::takeOutDrift() {
  passes_ = driftCorrected_ ? withoutDrifts(read_.current) : read_.current;
  emit changed();
}

Result<ControlDrift> LineUp::driftOf(std::string_view reading) const {
  return fin::driftOf(read_.current, reading);
}

void LineUp::correctDrift(bool on) {
  if (on == driftCorrected_) return;
  driftCorrected_ = on;
  takeOutDrift();
}

std::vector<Entry> LineUp::entries() const {
  std::vector<Entry> out;
  for (const ComparedPass& pass : passes_) {
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
  const PlannedPass* planned = pass.planned ? day_.planned(*pass.planned) : nullptr;
  if (planned != nullptr) return rack.rig(planned->rig);
  // Made beside the day's sheet: what was said of it may still name a rig of the rack.
  const auto named = std::find_if(rack.rigs.begin(), rack.rigs.end(),
                                  [&](const Rig& rig) { return rack.fullName(rig) == pass.rig; });
  return named == rack.rigs.end() ? nullptr : &*named;
}

/// The cameras, with their distance where it was said; empty where there is but one.
QString LineUp::heardBy(const std::vector<ComparedPass>& passes) const {
  std::set<std::string> cameras;
  for (const LoggedPass& pass : controller_.passes()) {
    const bool among =
        std::any_of(passes.begin(), passes.end(), [&](const ComparedPass& p) { return p.id == pass.id; });
    if (!among) continue;
    const auto& plane = pass.request.scalePlane;
    const QString away =
        plane ? tr("%1 at %2 m").arg("%1").arg(plane->cameraToLure.value() / 1000.0, 0, 'f', 1) : "%1";
    cameras.insert(away.arg(QString::fromStdString(pass.camera)).toStdString());
  }
  return unlike(cameras);
}

QStringList LineUp::differencesFor(std::string_view reading, std::optional<double> speed_mm_s) const {
  QStringList out;
  std::vector<ComparedPass> shown;
  std::set<std::string> lines, links, strengths;
  for (const ComparedPass& pass : passes_) {
    if (!numberIn(pass.readings, reading) || pass.pulledOtherwise(speed_mm_s)) continue;
    shown.push_back(pass);
    const Rig* rig = rigOf(pass);
    if (rig == nullptr) continue;
    lines.insert(rig->line);
    links.insert(rig->link);
    strengths.insert(rig->lineStrength_kg ? QString::number(*rig->lineStrength_kg).toStdString() : "");
  }
  if (const std::vector<double> speeds = speedsOf(shown); speeds.size() > 1) {
    out += tr("Pulled at different speeds: about %1 to %2.")
               .arg(spokenSpeed(speeds.front(), day_.units()), spokenSpeed(speeds.back(), day_.units()));
  }
  if (const QString uneven = unequalCadence(shown); !uneven.isEmpty()) out += uneven;
  if (reading.starts_with("rattle_")) {
    if (const QString cameras = heardBy(shown); !cameras.isEmpty())
      out += tr("Heard by different cameras: %1. Loudness cannot be compared across them.").arg(cameras);
  }
  const std::pair<QString, QString> unequal[] = {{tr("Line"), unlike(lines)},
                                                 {tr("Line strength, kg"), unlike(strengths)},
                                                 {tr("Swivel or snap"), unlike(links)}};
  for (const auto& [what, values] : unequal) {
    if (!values.isEmpty()) out += tr("%1 differs: %2.").arg(what, values);
  }
  for (const HeldEqual& held : day_.plan().heldEqual) {
    if (held.exception.empty()) continue;
    out += tr("%1 was not the same for all: %2.")
               .arg(QString::fromStdString(held.what), QString::fromStdString(held.exception));
  }
  return out;
}

}  // namespace fin::app
