// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/line_up.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "app/models/pass_desk.h"
#include "core/readings/registry.h"

namespace fin::app {
namespace {

constexpr double kOtherSpeed = 0.1;  ///< share by which pulls differ in speed
constexpr Protocol kProtocols[] = {Protocol::Retrieve, Protocol::Fall,  Protocol::Twitch, Protocol::Walk,
                                   Protocol::Rest,     Protocol::Skirt, Protocol::Sound};

std::optional<double> numberOf(const ReadingSet& set, const std::string& name) {
  const Reading* found = set.find(name);
  const double* number = found == nullptr ? nullptr : std::get_if<double>(&found->value);
  return number == nullptr ? std::nullopt : std::optional(*number);
}

bool otherSpeed(const ComparedPass& pass, std::optional<double> wanted_mm_s) {
  return wanted_mm_s && pass.speed_mm_s &&
         std::abs(*pass.speed_mm_s - *wanted_mm_s) > kOtherSpeed * *wanted_mm_s;
}

/// "braid / wire"; nothing where all are the same.
QString unlike(const std::set<std::string>& values) {
  if (values.size() < 2) return {};
  QStringList out;
  for (const std::string& v : values) out += v.empty() ? QObject::tr("not said") : QString::fromStdString(v);
  return out.join(" / ");
}

}  // namespace

RigValues numbersOf(const ComparedRig& rig) {
  RigValues out{rig.rig, {}, {}};
  for (const ComparedValue& v : rig.values) {
    out.values.push_back(v.value);
    out.u95.push_back(v.u95);
  }
  return out;
}

LineUp::LineUp(const Log& log, const PassDesk& desk, const DayDesk& day, QObject* parent)
    : QObject(parent), log_(log), desk_(desk), day_(day) {}

void LineUp::refresh() {
  passes_.clear();
  const Rack& rack = day_.plan().rack;
  const auto& sheet = day_.plan().sheet;
  fouled_ = static_cast<std::size_t>(std::count_if(
      sheet.begin(), sheet.end(), [](const PlannedPass& p) { return p.state == PassState::Fouled; }));
  for (const LoggedPass& pass : desk_.passes()) {
    const PlannedPass* planned = pass.planned ? day_.planned(*pass.planned) : nullptr;
    if (planned != nullptr && planned->state == PassState::Fouled) continue;
    auto readings = log_.readings(pass.id);
    if (!readings || readings->readings.empty()) continue;
    ComparedPass& out = passes_.emplace_back();
    out.id = pass.id;
    out.title = QString::fromStdString(pass.title);
    out.planned = pass.planned;
    out.protocol = pass.request.protocol;
    out.readings = std::move(*readings);
    const Rig* rig = planned == nullptr ? nullptr : rack.rig(planned->rig);
    if (rig != nullptr) {
      out.rigId = rig->id;
    }
    out.speed_mm_s = numberOf(out.readings, "travel_speed");
    out.rig = rig != nullptr ? rack.fullName(*rig)
                             : (pass.request.rigName.empty() ? pass.title : pass.request.rigName);
  }
  emit changed();
}

std::vector<std::string> LineUp::readings() const {
  std::vector<std::string> out;
  for (const Protocol protocol : kProtocols) {
    for (const ReadingSpec& spec : readingsOf(protocol)) {
      const std::string name(spec.name);
      const bool there = std::any_of(passes_.begin(), passes_.end(), [&](const ComparedPass& p) {
        return numberOf(p.readings, name).has_value();
      });
      if (there && std::find(out.begin(), out.end(), name) == out.end()) out.push_back(name);
    }
  }
  return out;
}

std::vector<double> LineUp::speeds() const {
  std::vector<double> all;
  for (const ComparedPass& pass : passes_) {
    if (pass.speed_mm_s) all.push_back(*pass.speed_mm_s);
  }
  std::sort(all.begin(), all.end());
  std::vector<double> out;
  for (std::size_t i = 0; i < all.size();) {
    std::size_t end = i;
    while (end < all.size() && all[end] < all[i] * (1.0 + kOtherSpeed)) ++end;
    out.push_back(all[(i + end - 1) / 2]);
    i = end;
  }
  return out;
}

std::vector<ComparedRig> LineUp::valuesOf(const std::string& reading,
                                          std::optional<double> speed_mm_s) const {
  std::vector<ComparedRig> out;
  std::map<RowId, std::pair<std::size_t, std::size_t>> known;  // planned pass → rig, value
  for (const ComparedPass& pass : passes_) {
    const auto number = numberOf(pass.readings, reading);
    if (!number || otherSpeed(pass, speed_mm_s)) continue;
    const ComparedValue value{pass.id, pass.title, *number, pass.readings.find(reading)->u95.value_or(0.0)};
    if (const auto twin = pass.planned ? known.find(*pass.planned) : known.end(); twin != known.end()) {
      ComparedValue& kept = out[twin->second.first].values[twin->second.second];
      if (value.u95 < kept.u95) kept = value;
      continue;
    }
    auto rig = std::find_if(out.begin(), out.end(), [&](const ComparedRig& r) { return r.rig == pass.rig; });
    if (rig == out.end()) rig = out.insert(out.end(), {pass.rig, {}});
    rig->values.push_back(value);
    if (pass.planned)
      known[*pass.planned] = {static_cast<std::size_t>(rig - out.begin()), rig->values.size() - 1};
  }
  return out;
}

QStringList LineUp::differencesFor(const std::string& reading, std::optional<double> speed_mm_s) const {
  QStringList out;
  double slowest = 1e9;
  double fastest = 0.0;
  std::set<std::string> lines, links, strengths;
  for (const ComparedPass& pass : passes_) {
    if (!numberOf(pass.readings, reading) || otherSpeed(pass, speed_mm_s)) continue;
    if (pass.speed_mm_s) {
      slowest = std::min(slowest, *pass.speed_mm_s);
      fastest = std::max(fastest, *pass.speed_mm_s);
    }
    const Rig* rig = pass.rigId ? day_.plan().rack.rig(*pass.rigId) : nullptr;
    if (rig == nullptr) continue;
    lines.insert(rig->line);
    links.insert(rig->link);
    strengths.insert(rig->lineStrength_kg ? QString::number(*rig->lineStrength_kg).toStdString() : "");
  }
  if (fastest > slowest * (1.0 + kOtherSpeed)) {
    const ShownUnit unit = shownUnit("mm/s", day_.units());
    const int decimals = unit.factor < 0.5 ? 1 : 0;
    out += tr("Pulled at different speeds: %1 to %2 %3.")
               .arg(slowest * unit.factor, 0, 'f', decimals)
               .arg(fastest * unit.factor, 0, 'f', decimals)
               .arg(unit.unit);
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

std::vector<std::pair<std::string, std::vector<LadderRung>>> LineUp::ladders() const {
  std::vector<std::pair<std::string, std::vector<LadderRung>>> out;
  for (const ComparedPass& pass : passes_) {
    if (pass.protocol != Protocol::Retrieve) continue;
    auto rung = rungOf(pass.title.toStdString(), pass.readings);
    if (!rung) continue;
    auto rig = std::find_if(out.begin(), out.end(), [&](const auto& r) { return r.first == pass.rig; });
    if (rig == out.end()) rig = out.insert(out.end(), {pass.rig, {}});
    rig->second.push_back(std::move(*rung));
  }
  std::erase_if(out, [](const auto& rig) {
    const auto [slow, fast] = std::minmax_element(
        rig.second.begin(), rig.second.end(),
        [](const LadderRung& a, const LadderRung& b) { return a.speed_mm_s < b.speed_mm_s; });
    return fast->speed_mm_s < slow->speed_mm_s * (1.0 + kOtherSpeed);
  });
  return out;
}

std::vector<std::pair<std::string, std::vector<DepthPoint>>> LineUp::depths() const {
  std::vector<std::pair<std::string, std::vector<DepthPoint>>> out;
  for (const ComparedPass& pass : passes_) {
    const auto depth = numberOf(pass.readings, "running_depth");
    if (!depth || !pass.speed_mm_s) continue;
    auto rig = std::find_if(out.begin(), out.end(), [&](const auto& r) { return r.first == pass.rig; });
    if (rig == out.end()) rig = out.insert(out.end(), {pass.rig, {}});
    rig->second.push_back({*pass.speed_mm_s, *depth, pass.readings.find("running_depth")->u95.value_or(0.0)});
  }
  for (auto& [rig, points] : out) {
    std::sort(points.begin(), points.end(),
              [](const DepthPoint& a, const DepthPoint& b) { return a.speed_mm_s < b.speed_mm_s; });
  }
  return out;
}

}  // namespace fin::app
