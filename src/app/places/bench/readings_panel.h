// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QScrollArea>

#include "app/look/words.h"
#include "app/models/pass_desk.h"

namespace fin::app {

/// Every reading of the pass: its number with uncertainty and grade, and, opened in place, how it was
/// measured; then what this clip cannot show, each with its reason.
class ReadingsPanel : public QScrollArea {
  Q_OBJECT

 public:
  explicit ReadingsPanel(PassDesk& desk, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 private:
  void rebuild();
  void addPromises(class QVBoxLayout& layout);

  PassDesk& desk_;
  UnitSystem units_ = UnitSystem::Metric;
  QString opened_;  ///< the reading whose origin is shown
};

}  // namespace fin::app
