// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/water_day_page.h"

#include <QFormLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/places/plan/day_fields.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr int kMostRods = 4;
constexpr int kMostMinutes = 600;
constexpr int kWidth_px = 640;

QSpinBox* counter(const char* name, const QString& accessible, int most) {
  auto* box = new QSpinBox;
  box->setObjectName(name);
  box->setAccessibleName(accessible);
  box->setRange(1, most);
  box->setButtonSymbols(QAbstractSpinBox::NoButtons);
  return box;
}

}  // namespace

WaterDayPage::WaterDayPage(WaterController& water, QWidget* parent)
    : QWidget(parent),
      water_(water),
      rods_(counter("rodCount", tr("How many rods are out"), kMostRods)),
      patience_(counter("patience", tr("Rod-minutes without a touch before a step down"), kMostMinutes)),
      block_(counter("blockMinutes", tr("Minutes of a stretch before rods are swapped"), kMostMinutes)) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("A day on the water")));
  auto* fields = new DayFields(water.days());
  fields->setMaximumWidth(kWidth_px);
  layout->addWidget(fields);
  auto* form = new QFormLayout;
  form->addRow(tr("Rods out"), rods_);
  form->addRow(tr("Rod-minutes without a touch before a step down"), patience_);
  form->addRow(tr("Minutes of a stretch before rods are swapped"), block_);
  layout->addLayout(form);
  layout->addWidget(faintLabel(
      tr("Two rigs are held against each other fairly where both fish the same stretch of place and hour: "
         "two rods, swapped as drawn. Press B on the Poolside to begin a stretch.")));
  layout->addStretch();
  layout->addWidget(cautionLines(Step::OnTheWater));
  const auto on = [this](QSpinBox* box, const QString& what, auto set) {
    connect(box, &QSpinBox::valueChanged, this, [this, what, set](int value) {
      water_.days().edit(what, [&](DayPlan& plan) { set(plan.waterDay, value); });
    });
  };
  on(rods_, tr("Rods out"), [](WaterDayPlan& day, int value) { day.rods = value; });
  on(patience_, tr("Patience"), [](WaterDayPlan& day, int value) { day.patience_min = value; });
  on(block_, tr("Length of a stretch"), [](WaterDayPlan& day, int value) { day.blockMinutes = value; });
  connect(&water_, &WaterController::changed, this, &WaterDayPage::refresh);
  refresh();
}

void WaterDayPage::refresh() {
  const WaterDayPlan& day = water_.plan().waterDay;
  const std::pair<QSpinBox*, double> all[] = {
      {rods_, day.rods}, {patience_, day.patience_min}, {block_, day.blockMinutes}};
  for (const auto& [box, value] : all) {
    const QSignalBlocker quiet(box);
    box->setValue(qRound(value));
  }
}

}  // namespace fin::app
