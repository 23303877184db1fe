// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QButtonGroup>
#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>
#include <QTableWidget>
#include <QTimer>

#include "app/controllers/eye_controller.h"
#include "app/phrases/words.h"
#include "app/places/lineup/in_step_pane.h"
#include "app/ui/actions.h"

class QCustomPlot;

namespace fin::app {

/// Scores by eye, given blind: clips without a name in a drawn order, each twice. Afterwards how far the eye
/// and the reading agree, and how steady the eye was.
class EyePage : public QWidget {
  Q_OBJECT

 public:
  EyePage(EyeController& controller, LineUp& lineUp, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  /// Clips are being shown to be scored.
  [[nodiscard]] bool judging() const { return stack_->currentWidget() == judging_; }
  [[nodiscard]] const StudiedPass* shown() const { return pane_->pass(); }
  [[nodiscard]] const ActionTable& actions() const { return actions_; }

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* buildResult();
  void buildSteps();
  QWidget* buildJudging();
  void refresh();
  void begin();
  void showNext();
  void take();
  void end();
  void showResult();
  void draw(const EyeCheck& check);
  void tick();
  /// Those that have the chosen reading.
  [[nodiscard]] std::vector<PassId> readPasses() const;
  [[nodiscard]] ReadingId property() const { return property_->currentData().value<ReadingId>(); }

  ActionTable actions_;
  EyeController& controller_;
  LineUp& lineUp_;
  StudiedPasses studied_;
  UnitSystem units_ = UnitSystem::Metric;
  QComboBox* property_;
  QPushButton* begin_;
  QPushButton* forget_;
  QStackedWidget* stack_;
  QWidget* judging_;
  QLabel* heading_;
  QLabel* words_;
  QWidget* above_;
  QWidget* steps_;
  QWidget* below_;
  QWidget* result_;
  QCustomPlot* plot_;
  QTableWidget* table_;
  QLabel* which_;
  InStepPane* pane_;
  QButtonGroup* scores_;
  QPushButton* next_;
  std::vector<PassId> left_;  ///< still to be shown, the next one last
  std::size_t all_ = 0;
  QTimer timer_;
  QElapsedTimer wall_;
};

}  // namespace fin::app
