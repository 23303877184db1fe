// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QScrollArea>

#include "app/controllers/pass_controller.h"
#include "app/phrases/words.h"

class QVBoxLayout;

namespace fin::app {

/// Every reading of the pass: its number with uncertainty and grade, and, opened in place, how it was
/// measured; then what this clip cannot show, each with its reason.
class ReadingsPanel : public QScrollArea {
  Q_OBJECT

 public:
  explicit ReadingsPanel(PassController& controller, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 private:
  void rebuild();
  void addFeasibilities(QVBoxLayout& layout);

  PassController& controller_;
  UnitSystem units_ = UnitSystem::Metric;
  std::optional<ReadingId> opened_;  ///< the reading whose origin is shown
};

}  // namespace fin::app
