// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/plane_card.h"

#include <QGridLayout>
#include <QLabel>

#include "app/phrases/words.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "core/calibration/refraction.h"

namespace fin::app {

PlaneCard::PlaneCard(PassController& controller, QWidget* parent) : QWidget(parent), controller_(controller) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  const auto add = [&](int row, const QString& text, const char* name, const char* unit, double most) {
    auto* input = new UnitBox(text, unit, {0.0, most, 0});
    input->setObjectName(name);
    auto* label = new QLabel(text);
    label->setBuddy(input);
    grid->addWidget(label, row, 0);
    grid->addWidget(input, row, 1);
    return input;
  };
  constexpr double kFar_mm = 100000.0;
  lureAir_ = add(0, tr("Camera to window"), "planeAir", "mm", kFar_mm);
  glass_ = add(1, tr("Glass"), "planeGlass", "mm", kFar_mm);
  lureWater_ = add(2, tr("Water to the lure"), "planeLure", "mm", kFar_mm);
  rulerWater_ = add(3, tr("Water to the ruler"), "planeRuler", "mm", kFar_mm);
  rulerAir_ = add(4, tr("or ruler dry, at"), "planeDry", "mm", kFar_mm);
  salt_ = add(5, tr("Salt"), "planeSalt", "g/kg", 42.0);
  auto* take = namedButton(tr("It hangs there"), "takePlane");
  auto* same = namedButton(tr("Same plane"), "samePlane");
  grid->addWidget(take, 6, 0);
  grid->addWidget(same, 6, 1);
  window_ =
      faintLabel(tr("A flat window stretches the picture towards its edge, by about 1 %. A lens found with "
                    "the board in the water takes that out."));
  window_->hide();
  grid->addWidget(window_, 7, 0, 1, 2);
  connect(take, &QPushButton::clicked, this, &PlaneCard::take);
  connect(same, &QPushButton::clicked, this, [this] {
    controller_.edit(tr("Ruler in the lure's plane"), [](PassRequest& r) { r.scalePlane.reset(); });
  });
  connect(&controller, &PassController::passChanged, this, &PlaneCard::refresh);
  connect(&Settings::all(), &Settings::unitsChanged, this, &PlaneCard::refresh);
  connect(&controller, &PassController::requestChanged, this, &PlaneCard::refresh);
}

void PlaneCard::take() {
  const GramsPerKilogram salt(salt_->metric());
  const Millimetres air(lureAir_->metric());
  const Millimetres glass(glass_->metric());
  const auto lure = apparentDistance({air, glass, Millimetres(lureWater_->metric())}, salt);
  const bool dry = rulerAir_->metric() > 0.0;
  const auto ruler = dry ? apparentDistance({Millimetres(rulerAir_->metric()), {}, {}}, salt)
                         : apparentDistance({air, glass, Millimetres(rulerWater_->metric())}, salt);
  if (!lure || !ruler) {
    emit stateChanged(QString::fromStdString((lure ? ruler : lure).error().message));
    return;
  }
  controller_.edit(tr("Say where the ruler hangs"), [&](PassRequest& r) {
    r.scalePlane = ScalePlane{*ruler, *lure};
  });
  window_->setVisible(air.value() > 0.0 && !controller_.current()->request.lens);
}

void PlaneCard::refresh() {
  if (controller_.current() == nullptr) return;
  const auto& plane = controller_.current()->request.scalePlane;
  emit stateChanged(
      plane ? tr("The ruler seems %1 off, the lure %2: every length is %3 times what the ruler says.")
                  .arg(spokenAmount(plane->cameraToScale.value(), "mm", 0, Settings::all().units()))
                  .arg(spokenAmount(plane->cameraToLure.value(), "mm", 0, Settings::all().units()))
                  .arg(plane->cameraToLure / plane->cameraToScale, 0, 'f', 3)
            : tr("Taken to hang in the lure's plane."));
}

}  // namespace fin::app
