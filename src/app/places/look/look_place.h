// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QWidget>

#include "app/controllers/look_through.h"
#include "app/phrases/words.h"
#include "app/places/look/still_view.h"
#include "app/ui/actions.h"

class QCustomPlot;

namespace fin::app {

/// One pass after the other that was measured by itself: three stills with the marks drawn on, its trace, its
/// first numbers, and one key for each thing that can be said of it.
class LookPlace : public QWidget {
  Q_OBJECT

 public:
  explicit LookPlace(LookThrough& look, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  [[nodiscard]] const ActionTable& actions() const { return actions_; }

 signals:
  void benchWanted(PassId pass);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QWidget* buildButtons();
  void fillActions();
  void refresh();
  void showTrace(const LoggedPass& pass, const LookedPass* looked);
  void showNumbers(const LoggedPass& pass, const LookedPass* looked);
  void showButtons(const LoggedPass* pass, const LookedPass* looked);
  void openOnBench();

  LookThrough& look_;
  UnitSystem units_ = UnitSystem::Metric;
  QLabel* title_;
  QLabel* count_;
  QLabel* sentence_;
  std::vector<StillView*> stills_;
  QLabel* axis_;
  QCustomPlot* plot_;
  QLabel* numbers_;
  QLabel* notes_;
  QPushButton* take_;
  QPushButton* swap_;
  QPushButton* bench_;
  QPushButton* foul_;
  QPushButton* split_;
  ActionTable actions_;
};

}  // namespace fin::app
