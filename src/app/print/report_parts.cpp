// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/report_parts.h"

#include <algorithm>

#include "core/comparison/speed_sets.h"

namespace fin::app {
namespace {

QString typed(const std::string& text) {
  return QString::fromStdString(text);
}

}  // namespace

void describeRig(ReportRig& to, const DayPlan& day, const QString& pricesFrom, UnitSystem units) {
  const std::string name = to.name.toStdString();
  const auto rig = std::find_if(day.rack.rigs.begin(), day.rack.rigs.end(), [&](const Rig& r) {
    return day.rack.nameOn(day.id, r.id) == name || day.rack.fullName(r) == name;
  });
  if (rig == day.rack.rigs.end()) return;
  const Model* model = day.rack.model(rig->model);
  if (model == nullptr) return;
  const auto tell = [&to](const QString& what, const QString& text) {
    if (!text.isEmpty()) to.madeOf += QString("%1: %2").arg(what, text);
  };
  const auto amount = [units](std::optional<double> v, const char* unit) {
    return v ? spokenAmount(*v, unit, 1, units) : QString();
  };
  tell(QObject::tr("Length"), amount(model->length_mm, "mm"));
  tell(QObject::tr("Weight"), amount(model->weight_g, "g"));
  tell(QObject::tr("Head"), amount(rig->head_g, "g"));
  tell(QObject::tr("Insert"), amount(rig->insert_g, "g"));
  QString hook = amount(rig->hook_g, "g");
  if (!rig->hookSize.empty())
    hook = (hook.isEmpty() ? QString() : hook + ", ") + QObject::tr("size %1").arg(typed(rig->hookSize));
  tell(QObject::tr("Hook as filmed"), hook);
  tell(QObject::tr("Hooks as sold"), typed(model->hooks));
  tell(QObject::tr("Colours"), typed(model->colours));
  tell(QObject::tr("Made of"), typed(model->material));
  tell(QObject::tr("Hardware"), typed(model->hardware));
  tell(QObject::tr("Skirt"), typed(rig->skirt));
  tell(QObject::tr("Trailer"), typed(rig->trailer));
  tell(QObject::tr("Line"), typed(rig->line));
  tell(QObject::tr("Tied with"), typed(rig->link));
  const auto money = [](double asked, const std::string& currency) {
    return QString("%1 %2").arg(asked, 0, 'f', 2).arg(typed(currency));
  };
  for (const Price& price : day.rack.prices) {
    if (price.model == model->id)
      to.prices += QString("%1, %2, %3")
                       .arg(money(price.amount, price.currency), typed(price.shop), typed(price.date));
  }
  if (to.prices.isEmpty() && model->price) {
    to.prices += money(*model->price, model->currency) + ", " +
                 (pricesFrom.isEmpty() ? QObject::tr("not dated") : pricesFrom);
  }
}

QStringList pulledTogether(const std::vector<ComparedPass>& passes, UnitSystem units) {
  QStringList lines;
  for (const SpeedSet& set : setsThatShare(bandsOf(passes))) {
    QStringList names;
    for (const std::string& rig : set.rigs) names += typed(rig);
    lines += QObject::tr("%1: %2 to %3.")
                 .arg(names.join(", "), spokenPull(set.from_mm_s, units), spokenPull(set.to_mm_s, units));
  }
  return lines;
}

QStringList heldEqualOn(const DayPlan& day, UnitSystem units) {
  QStringList lines;
  for (const HeldEqual& held : day.heldEqual) {
    if (held.value.empty() && held.exception.empty()) continue;
    QString line =
        typed(held.what) + ": " + (held.value.empty() ? QObject::tr("not said") : typed(held.value));
    if (!held.exception.empty()) line += QObject::tr("; except: %1").arg(typed(held.exception));
    lines += line;
  }
  lines += QObject::tr("The water as entered: %1, %2 g/kg salt.")
               .arg(spokenAmount(day.water.temperature_C, "°C", 1, units),
                    plainNumber(day.water.salinity_g_kg, 1));
  return lines;
}

ReportSection originsOf(const std::vector<ComparedPass>& passes) {
  ReportSection out{QObject::tr("Where the numbers come from"),
                    {},
                    {{QObject::tr("Pass"), QObject::tr("Clip"), QObject::tr("Frames"),
                      QObject::tr("Followed"), QObject::tr("Method"), QObject::tr("Measured")},
                     {}}};
  for (const ComparedPass& pass : passes) {
    if (!pass.from) continue;
    const Provenance& from = *pass.from;
    out.table.rows.push_back({typed(pass.title), typed(from.clip.filename().string()),
                              QString("%1–%2").arg(from.firstFrame).arg(from.lastFrame()),
                              QString::number(from.frames.followed), QString::number(from.methodVersion),
                              from.madeAt_s > 0.0 ? spokenMoment(from.madeAt_s) : QObject::tr("not known")});
  }
  return out;
}

}  // namespace fin::app
