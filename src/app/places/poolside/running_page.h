// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QLabel>
#include <QListWidget>
#include <QTimer>

#include "app/controllers/water_controller.h"
#include "app/phrases/water_words.h"
#include "app/ui/actions.h"

namespace fin::app {

/// The day on the water for cold hands: the rods, large, and one key for everything that happens. Rod-time is
/// the clock between; what nobody noted in a sleep is asked.
class RunningPage : public QWidget {
  Q_OBJECT

 public:
  explicit RunningPage(WaterController& water, QWidget* parent = nullptr);
  [[nodiscard]] const ActionTable& actions() const { return actions_; }
  /// The clock went on by itself, for tests: as the timer does once a second.
  void tick();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;

 private:
  /// One rod as it is shown.
  struct RodCard {
    QFrame* frame = nullptr;
    QLabel* rig = nullptr;
    QLabel* state = nullptr;
    QLabel* speed = nullptr;
  };
  QWidget* buildTie();
  void fillActions();
  void makeRods();
  void refresh();
  void showAdvice(const RunningDay& run);
  [[nodiscard]] QString swapInWords() const;
  void showEvents(const RunningDay& run);
  void choose(int rod);
  void came(RunEventKind kind);
  void askWhich(RunEventKind kind);
  void openTie();
  void takeTied();
  void takeStep(TierAdvice::Go go);
  void answerGap(bool fished);
  void say(const std::function<void(RunEvent&)>& detail);
  [[nodiscard]] int rods() const { return water_.plan().waterDay.rods; }

  WaterController& water_;
  ActionTable actions_;
  QTimer clock_;
  int chosen_ = 1;
  double lastTick_s_ = 0.0;
  std::optional<std::pair<double, double>> gap_;
  std::optional<RunEventKind> asked_;  ///< which rig this came on
  QLabel* advice_;
  QLabel* told_;
  QWidget* rodRow_;
  std::vector<RodCard> cards_;
  QWidget* tie_;
  QLabel* tieHead_;
  QListWidget* tieList_;
  QLabel* fish_;
  QListWidget* events_;
  QLabel* sums_;
};

}  // namespace fin::app
