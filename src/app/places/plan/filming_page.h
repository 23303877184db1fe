// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QScrollArea>
#include <QWidget>

#include "app/models/day_desk.h"

namespace fin::app {

/// Whether camera, tank and lure as planned can show what is asked, before anything is filmed.
class FilmingPage : public QWidget {
  Q_OBJECT

 public:
  explicit FilmingPage(DayDesk& desk, QWidget* parent = nullptr);

 private:
  void refresh();

  DayDesk& desk_;
  QScrollArea* findings_;
};

}  // namespace fin::app
