// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDoubleSpinBox>

#include "app/phrases/words.h"
#include "core/units/result.h"

namespace fin::app {

/// A number with its unit. Keeps metric and shows what the person reads; units are switched at once for all
/// boxes of a widget. Any unit of its kind may be typed ("3/8 oz" into grams); what cannot be meant is said
/// at the box, which keeps its value.
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

  [[nodiscard]] double metric() const { return shown_.metric(value()); }
  /// Shows a value without telling anybody.
  void show(double metric);
  void setUnits(UnitSystem units);
  /// What was last typed and cannot be meant; empty since it was mended.
  [[nodiscard]] QString trouble() const { return trouble_; }

  QValidator::State validate(QString& text, int& position) const override;
  [[nodiscard]] double valueFromText(const QString& text) const override;
  void fixup(QString& text) const override;

 signals:
  void edited(double metric);

 private:
  [[nodiscard]] QString ownWords(QString text) const;
  [[nodiscard]] Result<double> typed(const QString& text) const;

  mutable QString trouble_;
  double stands_ = 0.0;  ///< metric, before what is being typed
  std::string unit_;
  Range range_;
  ShownUnit shown_;
};

void setUnitsWithin(QWidget& widget, UnitSystem units);

}  // namespace fin::app
