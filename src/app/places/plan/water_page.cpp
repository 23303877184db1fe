// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/water_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <cmath>

#include "app/phrases/words.h"
#include "app/places/plan/number_form.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

NumberLine line(const QString& label, const char* name, const char* unit, UnitBox::Range range,
                double WaterPlan::*member) {
  return numberLine(label, name, unit, range, &DayPlan::water, member);
}

QString error(const Error& e) {
  return QString::fromStdString(e.message);
}

QString saltText(const WaterPlan& w) {
  const GramsPerKilogram wanted(w.wantedSalinity_g_kg);
  if (wanted == w.state().salinity) return QObject::tr("The salt is as wanted.");
  if (wanted > w.state().salinity) {
    const auto salt = saltToAdd(w.state(), w.volume(), wanted);
    if (!salt) return error(salt.error());
    const double bags = w.bag_kg > 0.0 ? salt->value() / w.bag_kg : 0.0;
    return QObject::tr(
               "Add %1 kg of salt: %2 bags of %3 kg. Finish by the hydrometer: table and sea salt differ a "
               "little.")
        .arg(salt->value(), 0, 'f', 1)
        .arg(bags, 0, 'f', 1)
        .arg(w.bag_kg, 0, 'f', 0);
  }
  const auto fresh = freshWaterToAdd(w.state(), w.volume(), wanted);
  if (!fresh) return error(fresh.error());
  const double share = fresh->value() / (fresh->value() + density(w.state())->value() * w.volume().value());
  return QObject::tr("Add %1 of fresh water, or change %2 % of the water for fresh.")
      .arg(spokenAmount(fresh->value(), "l", 0, Settings::all().units()))
      .arg(100.0 * share, 0, 'f', 0);
}

}  // namespace

WaterPage::WaterPage(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      name_(new QLineEdit),
      weight_(new QLabel),
      toDo_(new QLabel),
      state_(new QLabel) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(24);
  auto* left = new QVBoxLayout;
  left->addWidget(headingLabel(tr("Pool or tank")));
  auto* grid = new QGridLayout;
  grid->addWidget(new QLabel(tr("Its name")), 0, 0);
  grid->addWidget(name_, 0, 1);
  name_->setObjectName("waterName");
  name_->setAccessibleName(tr("Its name"));
  const UnitBox::Range size{-1e5, 1e5, 0};
  addNumbers(*grid, controller,
             {line(tr("Length"), "waterLength", "mm", size, &WaterPlan::length_mm),
              line(tr("Width"), "waterWidth", "mm", size, &WaterPlan::width_mm),
              line(tr("Depth"), "waterDepth", "mm", size, &WaterPlan::depth_mm),
              line(tr("Empty tank weighs"), "tankWeight", "kg", {0.0, 1e5, 0}, &WaterPlan::emptyTank_kg),
              line(tr("Temperature"), "temperature", "°C", {-50.0, 100.0, 1}, &WaterPlan::temperature_C),
              line(tr("Salt now"), "saltNow", "g/kg", {0.0, 100.0, 1}, &WaterPlan::salinity_g_kg),
              line(tr("Salt wanted"), "saltWanted", "g/kg", {0.0, 100.0, 1}, &WaterPlan::wantedSalinity_g_kg),
              line(tr("One bag of salt"), "bag", "kg", {0.0, 1000.0, 1}, &WaterPlan::bag_kg),
              line(tr("Clear to"), "clarity", "m", {0.0, 100.0, 1}, &WaterPlan::clarity_m)},
             *this);
  left->addLayout(grid);
  left->addStretch();
  row->addLayout(left, 2);

  auto* right = new QVBoxLayout;
  auto* box = card();
  auto* inside = new QVBoxLayout(box);
  inside->setContentsMargins(18, 14, 18, 14);
  inside->setSpacing(10);
  weight_->setObjectName("filledWeight");
  setLetters(*weight_, "large");
  toDo_->setObjectName("saltToDo");
  for (QLabel* label : {weight_, toDo_, state_}) label->setWordWrap(true);
  state_->setProperty("faint", true);
  inside->addWidget(weight_);
  inside->addWidget(toDo_);
  inside->addWidget(state_);
  right->addWidget(box);
  if (QWidget* lines = cautionLines(Step::Water)) right->addWidget(lines);
  right->addStretch();
  row->addLayout(right, 3);

  connect(name_, &QLineEdit::editingFinished, this, [this] {
    controller_.edit(tr("Name the water"),
                     [this](DayPlan& plan) { plan.water.name = name_->text().toStdString(); });
  });
  connect(&controller, &DayController::planChanged, this, &WaterPage::refresh);
  connect(&Settings::all(), &Settings::unitsChanged, this, &WaterPage::refresh);
  refresh();
}

void WaterPage::refresh() {
  const WaterPlan& w = controller_.plan().water;
  if (!name_->hasFocus()) name_->setText(QString::fromStdString(w.name));
  const auto weight = filledWeight(w.state(), w.volume(), Kilograms(w.emptyTank_kg));
  setLook(*weight_, "trouble", !weight);
  if (!weight || w.length_mm <= 0.0 || w.width_mm <= 0.0 || w.depth_mm <= 0.0) {
    weight_->setText(weight ? tr("Length, width and depth must each be more than zero.")
                            : error(weight.error()));
    setLook(*weight_, "trouble", true);
    toDo_->clear();
    state_->clear();
    return;
  }
  weight_->setText(
      tr("Filled, it weighs %1.").arg(spokenAmount(weight->value(), "kg", 0, Settings::all().units())));
  toDo_->setText(saltText(w));
  state_->setText(
      tr("%1 of water at %2 kg/m³; it is %3 times as viscous as fresh water at %4.")
          .arg(spokenAmount(1000.0 * w.volume().value(), "l", 0, Settings::all().units()))
          .arg(density(w.state())->value(), 0, 'f', 2)
          .arg(*viscosity_Pa_s(w.state()) / *viscosity_Pa_s({GramsPerKilogram(0.0), Celsius(20.0)}), 0, 'f',
               2)
          .arg(spokenAmount(20.0, "°C", 0, Settings::all().units())));
}

}  // namespace fin::app
