// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QElapsedTimer>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QTimer>
#include <array>

#include "app/controllers/verdict_controller.h"
#include "app/places/lineup/film_panel.h"
#include "app/places/lineup/in_step_pane.h"
#include "app/places/lineup/pass_picker.h"
#include "app/ui/actions.h"

namespace fin::app {

/// Two to six passes running side by side from the same instant, by one control.
class InStepPage : public QWidget {
  Q_OBJECT

 public:
  InStepPage(LineUp& lineUp, StudiedPasses& studied, const VerdictController& verdict,
             QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

  /// After the instant that all share.
  [[nodiscard]] double time_s() const { return time_s_; }
  void goTo(double time_s);
  void toggle();
  [[nodiscard]] bool running() const { return timer_.isActive(); }
  /// Every pane shows what it was asked for.
  [[nodiscard]] bool settled() const;
  [[nodiscard]] std::vector<const InStepPane*> panes() const;
  /// What is seen now, side by side, with the rigs' names.
  [[nodiscard]] QImage strip() const;
  /// The film of what is seen, as the panel beside it says.
  [[nodiscard]] FilmOrder filmOrder() const;
  [[nodiscard]] FilmPanel& film() { return *film_; }
  [[nodiscard]] const ActionTable& actions() const { return actions_; }

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* buildControls();
  void addSteps(QHBoxLayout& row);
  void refresh();
  void layOut();
  void scale();
  void stop();
  void tick();
  void step(int frames);
  void tell();
  void saveStrip();
  void showFilm(bool shown);
  [[nodiscard]] double share() const { return slowness_->currentData().toDouble(); }
  [[nodiscard]] double instantOf(const StudiedPass& pass) const;
  [[nodiscard]] double finestFrame_s() const;

  ActionTable actions_;
  LineUp& lineUp_;
  StudiedPasses& studied_;
  const VerdictController& verdict_;
  UnitSystem units_ = UnitSystem::Metric;
  QComboBox* instant_;
  QComboBox* slowness_;
  QComboBox* near_;
  QCheckBox* sameSize_;
  QPushButton* run_;
  QSlider* place_;
  QLabel* time_;
  QLabel* words_;
  QPushButton* filmButton_;
  FilmPanel* film_;
  PassPicker* picker_;
  QGridLayout* grid_;
  std::array<InStepPane*, PassPicker::kMost> panes_{};
  std::map<PassId, double> byHand_;  ///< instants that the person said
  double time_s_ = 0.0;
  double begins_s_ = 0.0;
  double ends_s_ = 0.0;
  QTimer timer_;
  QElapsedTimer wall_;
  double due_s_ = 0.0;   ///< on the wall's clock, the next step
  double from_s_ = 0.0;  ///< where it began to run
};

}  // namespace fin::app
