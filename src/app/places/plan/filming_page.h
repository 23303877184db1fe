// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QScrollArea>
#include <QWidget>

#include "app/controllers/day_controller.h"

namespace fin::app {

/// Whether camera, tank and lure as planned can show what is asked, before anything is filmed.
class FilmingPage : public QWidget {
  Q_OBJECT

 public:
  explicit FilmingPage(DayController& controller, QWidget* parent = nullptr);

 private:
  void refresh();

  DayController& controller_;
  QScrollArea* findings_;
};

}  // namespace fin::app
