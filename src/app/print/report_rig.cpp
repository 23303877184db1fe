// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/report_rig.h"

#include <algorithm>

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

}  // namespace fin::app
