// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <functional>

#include "app/controllers/log_book.h"
#include "app/controllers/water_controller.h"
#include "app/places/log/photo_row.h"

namespace fin::app {

/// One day as it was: its water, its people, what was asked, and its passes; or what happened on the water.
class DayPage : public QWidget {
  Q_OBJECT

 public:
  explicit DayPage(LogBook& book, QWidget* parent = nullptr);
  void show(DayId day);
  void setUnits(UnitSystem units) { units_ = units; }

 signals:
  void passWanted(PassId pass);

 private:
  LogBook& book_;
  UnitSystem units_ = UnitSystem::Metric;
  DayId day_;
  QLabel* name_;
  QLabel* facts_;
  QListWidget* passes_;
  PhotoRow* photos_;
  QPushButton* choose_;
  QPushButton* take_;
};

/// A pool, a tank, a lake: what is known of it, and the days there.
class WaterBodyPage : public QWidget {
  Q_OBJECT

 public:
  WaterBodyPage(LogBook& book, const WaterController& season, QWidget* parent = nullptr);
  void show(WaterId water);

 signals:
  void dayWanted(DayId day);

 private:
  void change(const QString& what, const std::function<void(WaterBody&)>& make);

  void fillRates();

  LogBook& book_;
  const WaterController& season_;
  WaterId water_;
  QLabel* rates_;
  QLineEdit* name_;
  QLineEdit* position_;
  QLineEdit* note_;
  PhotoRow* photos_;
  QListWidget* days_;
};

}  // namespace fin::app
