// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDoubleSpinBox>

#include "app/phrases/words.h"

namespace fin::app {

/// A number with its unit. Keeps metric and shows what the person reads; units are switched at once for all
/// boxes of a widget.
class UnitBox : public QDoubleSpinBox {
  Q_OBJECT

 public:
  struct Range {
    double from = 0.0;
    double to = 1e6;
    int decimals = 1;
  };
  /// `unit` as in the readings ("mm", "mm/s"), or any text that has no imperial form.
  UnitBox(const QString& name, const char* unit, Range range, QWidget* parent = nullptr);

  [[nodiscard]] double metric() const { return value() / shown_.factor; }
  /// Shows a value without telling anybody.
  void show(double metric);
  void setUnits(UnitSystem units);

 signals:
  void edited(double metric);

 private:
  std::string unit_;
  Range range_;
  ShownUnit shown_;
};

void setUnitsWithin(QWidget& widget, UnitSystem units);

}  // namespace fin::app
