// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/day_fields.h"

#include <QGridLayout>
#include <QLabel>
#include <QSignalBlocker>

#include "app/ui/pieces.h"
#include "core/units/date.h"

namespace fin::app {

DayFields::DayFields(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      name_(new QLineEdit),
      date_(new QLineEdit),
      people_(new QLineEdit),
      water_(new QComboBox) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  const auto add = [grid](const QString& label, QWidget* field, int row, int column, int span = 1) {
    auto* words = new QLabel(label);
    words->setBuddy(field);
    grid->addWidget(words, row, column);
    grid->addWidget(field, row, column + 1, 1, span);
  };
  add(tr("The day's name"), name_, 0, 0, 3);
  add(tr("Date"), date_, 1, 0);
  add(tr("Who is there"), people_, 1, 2);
  add(tr("Water"), water_, 2, 0, 3);
  grid->setColumnStretch(3, 1);
  name_->setObjectName("dayName");
  date_->setObjectName("dayDate");
  date_->setAccessibleName(tr("Date of the day: year, month, day"));
  date_->setPlaceholderText(tr("2026-11-29"));
  date_->setMaximumWidth(110);
  people_->setObjectName("dayPeople");
  people_->setAccessibleName(tr("Who is there"));
  water_->setObjectName("dayWater");
  water_->setAccessibleName(tr("On which water"));
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    controller_.edit(tr("Name the day"), [this](DayPlan& plan) { plan.name = name_->text().toStdString(); });
  });
  connect(date_, &QLineEdit::editingFinished, this, [this] {
    const QString text = date_->text().trimmed();
    const bool good = text.isEmpty() || dayNumberOf(text.toStdString());
    setLook(*date_, "trouble", !good);
    date_->setToolTip(good ? QString() : tr("%1 is no date. Write it like 2026-11-29.").arg(text));
    if (good)
      controller_.edit(tr("Date of the day"), [&text](DayPlan& plan) { plan.date = text.toStdString(); });
  });
  connect(people_, &QLineEdit::editingFinished, this, [this] {
    controller_.edit(tr("Who is there"),
                     [this](DayPlan& plan) { plan.people = people_->text().toStdString(); });
  });
  connect(water_, &QComboBox::activated, this, [this] {
    controller_.edit(tr("On which water"),
                     [this](DayPlan& plan) { plan.waterBody = water_->currentData().toLongLong(); });
  });
  connect(&controller, &DayController::planChanged, this, &DayFields::refresh);
  refresh();
}

void DayFields::refresh() {
  const DayPlan& plan = controller_.plan();
  if (!name_->hasFocus()) {
    name_->setText(QString::fromStdString(plan.name));
    name_->setCursorPosition(0);
  }
  if (!date_->hasFocus()) {
    date_->setText(QString::fromStdString(dateOf(plan)));
    setLook(*date_, "trouble", false);
  }
  if (!people_->hasFocus()) people_->setText(QString::fromStdString(plan.people));
  const QSignalBlocker quiet(water_);
  water_->clear();
  water_->addItem(tr("not said (waters are added in the Log)"), QVariant::fromValue<qlonglong>(0));
  for (const WaterBody& body : plan.waters)
    water_->addItem(QString::fromStdString(body.name), QVariant::fromValue<qlonglong>(body.id.value()));
  water_->setCurrentIndex(
      std::max(0, water_->findData(QVariant::fromValue<qlonglong>(plan.waterBody.value()))));
}

}  // namespace fin::app
