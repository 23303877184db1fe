// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace fin::app {

/// What a log without a clip offers: the four ways to begin.
class Welcome : public QWidget {
  Q_OBJECT

 public:
  explicit Welcome(QWidget* parent = nullptr);

 signals:
  void measureWanted();
  void planWanted();
  void demoWanted();
  void logWanted();
};

}  // namespace fin::app
