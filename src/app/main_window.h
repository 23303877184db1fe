// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QMainWindow>
#include <QPushButton>
#include <QStackedWidget>
#include <vector>

#include "app/models/clip_sharing.h"
#include "app/models/day_desk.h"
#include "app/models/kept_calibrations.h"
#include "app/models/lens_desk.h"
#include "app/models/pass_desk.h"
#include "app/places/bench/bench_place.h"
#include "app/places/lineup/line_up_place.h"
#include "app/places/plan/plan_place.h"
#include "app/places/poolside/poolside_place.h"
#include "app/places/verdict/verdict_place.h"

namespace fin::app {

enum class Place { Plan, Poolside, Bench, LineUp, Verdict, Log };

/// One window with the places of the day in one strip.
class MainWindow : public QMainWindow {
  Q_OBJECT

 public:
  /// Indexes of clips looked through before are kept in `indexFolder`; none where it is empty.
  explicit MainWindow(std::unique_ptr<Log> log, const std::filesystem::path& indexFolder = {},
                      QWidget* parent = nullptr);
  ~MainWindow() override;

  void go(Place place);
  [[nodiscard]] PassDesk& desk() { return *desk_; }
  [[nodiscard]] DayDesk& day() { return *day_; }
  [[nodiscard]] KeptCalibrations& kept() { return *kept_; }
  [[nodiscard]] LensDesk& lenses() { return *lenses_; }
  [[nodiscard]] ClipSharing& sharing() { return *sharing_; }
  [[nodiscard]] BenchPlace& bench() { return *bench_; }
  [[nodiscard]] PlanPlace& plan() { return *plan_; }
  [[nodiscard]] LineUpPlace& lineUp() { return *lineUp_; }
  [[nodiscard]] VerdictPlace& verdict() { return *verdict_; }
  [[nodiscard]] PoolsidePlace& poolside() { return *poolside_; }

 signals:
  /// Another log is wanted in place of this one.
  void logChosen(const QString& file);

 private:
  void addPlace(Place place, const QString& name, QWidget* widget);
  void addActions();
  void keepReadingsFresh();
  QWidget* buildStrip();
  void toggleKeySheet();
  void setUnits(UnitSystem units);

  std::unique_ptr<Log> log_;
  QUndoStack undo_;
  PassDesk* desk_;
  DayDesk* day_;
  KeptCalibrations* kept_;
  LensDesk* lenses_;
  ClipSharing* sharing_;
  FurtherWays* ways_;
  LineUp* read_;
  VerdictDesk* deciding_;
  EyeDesk* eye_;
  EarDesk* ear_;
  QWidget* strip_;
  QStackedWidget* places_;
  std::vector<QPushButton*> tabs_;
  PlanPlace* plan_;
  PoolsidePlace* poolside_;
  BenchPlace* bench_;
  LineUpPlace* lineUp_;
  VerdictPlace* verdict_;
  QWidget* keySheet_ = nullptr;
};

}  // namespace fin::app
