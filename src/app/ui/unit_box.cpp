// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/unit_box.h"

#include <QSignalBlocker>

namespace fin::app {

constexpr int kLeastWidth = 76;

UnitBox::UnitBox(const QString& name, const char* unit, Range range, QWidget* parent)
    : QDoubleSpinBox(parent), unit_(unit), range_(range) {
  setAccessibleName(name);
  setButtonSymbols(NoButtons);
  setKeyboardTracking(false);
  setMinimumWidth(kLeastWidth);  // a wide range would else ask for the room of its longest number
  setUnits(UnitSystem::Metric);
  connect(this, &QDoubleSpinBox::valueChanged, this, [this] { emit edited(metric()); });
}

void UnitBox::show(double metric) {
  const QSignalBlocker quiet(this);
  setValue(metric * shown_.factor);
}

void UnitBox::setUnits(UnitSystem units) {
  const double kept = metric();
  const QSignalBlocker quiet(this);
  shown_ = shownUnit(unit_, units);
  // An inch is coarse: two decimals more keep a millimetre a millimetre.
  setDecimals(range_.decimals + (shown_.factor < 1.0 ? 2 : 0));
  setRange(range_.from * shown_.factor, range_.to * shown_.factor);
  setSuffix(shown_.unit.isEmpty() ? QString() : " " + shown_.unit);
  setValue(kept * shown_.factor);
}

void setUnitsWithin(QWidget& widget, UnitSystem units) {
  for (UnitBox* box : widget.findChildren<UnitBox*>()) box->setUnits(units);
}

}  // namespace fin::app
