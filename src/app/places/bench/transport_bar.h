// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QWidget>

#include "app/places/bench/playback.h"

namespace fin::app {

/// Steps, slow running, and where in the clip one is.
class TransportBar : public QWidget {
  Q_OBJECT

 public:
  TransportBar(PassController& controller, Playback& playback, QWidget* parent = nullptr);
  void step(int frames);

 private:
  QPushButton* button(const QString& text, const QString& name, int frames);
  void tellPlace();

  PassController& controller_;
  Playback& playback_;
  QPushButton* run_;
  QComboBox* speed_;
  QLabel* place_;
};

}  // namespace fin::app
