// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QMainWindow>
#include <QPushButton>
#include <QStackedWidget>
#include <vector>

#include "app/models/pass_desk.h"
#include "app/places/bench/bench_place.h"

namespace fin::app {

enum class Place { Plan, Poolside, Bench, LineUp, Verdict, Log };

/// One window with the places of the day in one strip.
class MainWindow : public QMainWindow {
  Q_OBJECT

 public:
  explicit MainWindow(std::unique_ptr<Log> log, QWidget* parent = nullptr);

  void go(Place place);
  [[nodiscard]] PassDesk& desk() { return *desk_; }
  [[nodiscard]] BenchPlace& bench() { return *bench_; }

 signals:
  /// Another log is wanted in place of this one.
  void logChosen(const QString& file);

 private:
  void addPlace(Place place, const QString& name, QWidget* widget);
  void addActions();
  QWidget* buildStrip();
  void toggleKeySheet();
  void setUnits(UnitSystem units);

  PassDesk* desk_;
  QWidget* strip_;
  QStackedWidget* places_;
  std::vector<QPushButton*> tabs_;
  BenchPlace* bench_;
  QWidget* keySheet_ = nullptr;
};

}  // namespace fin::app
