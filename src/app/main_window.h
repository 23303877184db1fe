// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QMainWindow>
#include <QPushButton>
#include <QStackedWidget>
#include <QTimer>
#include <set>
#include <vector>

#include "app/controllers/camera_sync.h"
#include "app/controllers/day_controller.h"
#include "app/controllers/kept_calibrations.h"
#include "app/controllers/lens_controller.h"
#include "app/controllers/measuring_queue.h"
#include "app/controllers/pass_controller.h"
#include "app/controllers/water_controller.h"
#include "app/places/bench/bench_place.h"
#include "app/places/conditions_bar.h"
#include "app/places/edition_bar.h"
#include "app/places/lineup/line_up_place.h"
#include "app/places/log/log_place.h"
#include "app/places/look/found_bar.h"
#include "app/places/look/look_place.h"
#include "app/places/nothing_yet_bar.h"
#include "app/places/outdated_bar.h"
#include "app/places/place.h"
#include "app/places/plan/plan_place.h"
#include "app/places/poolside/poolside_place.h"
#include "app/places/verdict/verdict_place.h"
#include "app/ui/notice_bar.h"
#include "app/ui/sheet.h"
#include "app/ui/theme.h"

namespace fin::app {

class GuideWindow;

/// One window with the places of the day in one strip.
class MainWindow : public QMainWindow {
  Q_OBJECT

 public:
  /// Indexes of clips looked through before are kept in `indexFolder`; none where it is empty.
  explicit MainWindow(std::unique_ptr<Log> log, const std::filesystem::path& indexFolder = {},
                      QWidget* parent = nullptr);
  ~MainWindow() override;

  void go(Place place);
  [[nodiscard]] Place place() const { return static_cast<Place>(places_->currentIndex()); }
  [[nodiscard]] PassController& passController() { return *controller_; }
  [[nodiscard]] Edits& edits() { return *edits_; }
  /// What was last said above the places; empty where nothing is.
  [[nodiscard]] QString notice() const { return notice_->message(); }
  /// Says something above all places.
  void say(const QString& message) { notice_->say(message); }
  /// Nothing is under way, and what is to be seen is there.
  [[nodiscard]] bool settled() const;
  [[nodiscard]] DayController& day() { return *day_; }
  [[nodiscard]] WaterController& water() { return *water_; }
  [[nodiscard]] KeptCalibrations& kept() { return *kept_; }
  [[nodiscard]] LensController& lenses() { return *lenses_; }
  [[nodiscard]] CameraSync& sharing() { return *sharing_; }
  [[nodiscard]] BenchPlace& bench() { return *bench_; }
  [[nodiscard]] PlanPlace& plan() { return *plan_; }
  [[nodiscard]] LineUpPlace& lineUp() { return *lineUp_; }
  [[nodiscard]] VerdictPlace& verdict() { return *verdict_; }
  [[nodiscard]] LookThrough& lookThrough() { return *look_; }
  [[nodiscard]] MeasuringQueue& queue() { return *queue_; }
  [[nodiscard]] PoolsidePlace& poolside() { return *poolside_; }

 signals:
  /// Another log is wanted in place of this one.
  void logChosen(const QString& file);
  void demoWanted();

 protected:
  void changeEvent(QEvent* event) override;

 private:
  void addPlace(Place place, const QString& name, QWidget* widget);
  void addActions();
  void keepReadingsFresh();
  void measureByItself();
  void hearTroubles();
  void reloadAll();
  void tellUnreadable();
  QWidget* buildStrip();
  [[nodiscard]] std::vector<std::pair<const ActionTable*, Place>> actionTables() const;
  void toggleKeySheet();
  void showGuide();
  void showSettings();
  void showDays();
  void showDay();
  void wantBars();
  void giveTabsRoom();
  void switchUnits();
  void showUnits();

  std::unique_ptr<Log> log_;
  Edits* edits_;
  PassController* controller_;
  DayController* day_;
  MeasuringQueue* queue_;
  KeptCalibrations* kept_;
  LensController* lenses_;
  CameraSync* sharing_;
  FurtherCrossings* ways_;
  LogBook* book_;
  WaterController* water_;
  LineUp* lineUpModel_;
  VerdictController* verdictController_;
  EyeController* eye_;
  EarController* ear_;
  LookThrough* look_;
  NoticeBar* notice_;
  OutdatedBar* outdated_;
  NothingYetBar* nothingYet_;
  FoundBar* found_;
  EditionBar* edition_;
  std::set<PassId> tried_;  ///< of the passes that are measured by themselves
  QTimer elsewhere_;
  QWidget* strip_;
  QStackedWidget* places_;
  std::vector<QPushButton*> tabs_;
  PlanPlace* plan_;
  PoolsidePlace* poolside_;
  BenchPlace* bench_;
  LineUpPlace* lineUp_;
  VerdictPlace* verdict_;
  LogPlace* logPlace_;
  LookPlace* lookPlace_;
  QPushButton* units_;
  QPushButton* dayButton_;
  ActionTable everywhere_;
  Sheet* sheet_ = nullptr;
  GuideWindow* guide_ = nullptr;  ///< once it was asked for
  const Theme* worn_;             ///< that plots are drawn in
};

}  // namespace fin::app
