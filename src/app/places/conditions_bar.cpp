// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/conditions_bar.h"

#include "app/phrases/water_words.h"

namespace fin::app {

ConditionsBar::ConditionsBar(WaterController& water, QWidget* parent) : QLabel(parent), water_(water) {
  setObjectName("conditionsBar");
  setAccessibleName(tr("What the water is like"));
  setWordWrap(true);
  setContentsMargins(2, 6, 2, 0);
  connect(&water, &WaterController::changed, this, &ConditionsBar::refresh);
  refresh();
}

void ConditionsBar::refresh() {
  setVisible(water_.onTheWater());
  if (!water_.onTheWater()) return;
  const QString known = spokenWater(water_.water(), water_.days().units());
  setText(known.isEmpty() ? tr("Nothing is noted of the water yet: Plan, Conditions.") : known);
}

}  // namespace fin::app
