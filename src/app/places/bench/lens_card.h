// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QSpinBox>

#include "app/controllers/lens_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// The found corners of the board and how far each misses the lens, drawn longer than it is.
class ResidualPicture : public QWidget {
  Q_OBJECT

 public:
  explicit ResidualPicture(QWidget* parent = nullptr);
  void show(const LensFit& fit);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  LensFit fit_;
};

/// Which lens is allowed for, and how one is found from a filmed board.
class LensCard : public QWidget {
  Q_OBJECT

 public:
  LensCard(PassController& controller, LensController& lenses, QWidget* parent = nullptr);

 signals:
  void stateChanged(const QString& text);
  void lensFound(QWidget* shown);  ///< and what shows it

 private:
  void refresh();
  void fillChoice();
  void printBoard();
  [[nodiscard]] LensBoard board() const;

  PassController& controller_;
  LensController& lenses_;
  std::vector<KeptLens> kept_;
  QComboBox* choice_;
  QSpinBox* columns_;
  QSpinBox* rows_;
  UnitBox* field_;
  QPushButton* solve_;
  QProgressBar* progress_;
  QLabel* found_;
  ResidualPicture* residuals_;
  QComboBox* window_;
  QPushButton* keep_;
};

}  // namespace fin::app
