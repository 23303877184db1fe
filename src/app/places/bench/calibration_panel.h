// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCheckBox>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/controllers/camera_sync.h"
#include "app/controllers/kept_calibrations.h"
#include "app/controllers/lens_controller.h"
#include "app/places/bench/camera_card.h"
#include "app/places/bench/lines_card.h"
#include "app/places/bench/sight_card.h"
#include "app/places/bench/square_card.h"
#include "app/ui/fold.h"

namespace fin::app {

/// More on size and time, one card open at a time.
class CalibrationPanel : public QScrollArea {
  Q_OBJECT

 public:
  struct Models {
    PassController& controller;
    KeptCalibrations& kept;
    LensController& lenses;
    CameraSync& sharing;
  };
  explicit CalibrationPanel(const Models& models, QWidget* parent = nullptr);
  void setUnits(UnitSystem units) { camera_->setUnits(units); }
  [[nodiscard]] SquareCard& square() { return *square_; }
  [[nodiscard]] SightCard& sight() { return *sight_; }
  [[nodiscard]] LinesCard& lines() { return *lines_; }
  void open(const char* fold);

 signals:
  void done();

 private:
  template <class Card>
  Card* add(const QString& title, const char* name, Card* card);
  QWidget* buildMoving();
  void refresh();

  PassController& controller_;
  QVBoxLayout* layout_;
  std::vector<Fold*> folds_;
  CameraCard* camera_;
  SquareCard* square_;
  LinesCard* lines_;
  SightCard* sight_;
  QCheckBox* follow_;
};

}  // namespace fin::app
