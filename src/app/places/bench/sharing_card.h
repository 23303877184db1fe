// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>

#include "app/controllers/camera_sync.h"

namespace fin::app {

/// The other cameras' clips of the pass on the bench, on one time with it.
class SharingCard : public QWidget {
  Q_OBJECT

 public:
  SharingCard(PassController& controller, CameraSync& sharing, QWidget* parent = nullptr);

 signals:
  void stateChanged(const QString& text);

 private:
  void refresh();

  PassController& controller_;
  CameraSync& sharing_;
  QPushButton* mark_;
  QPushButton* align_;
  QVBoxLayout* rows_;
};

}  // namespace fin::app
