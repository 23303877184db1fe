// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QWidget>

#include "app/controllers/pass_controller.h"
#include "app/jobs/clip_voice.h"

namespace fin::app {

/// Says which stretch of a sound pass is quiet, and lets it be heard. Only there for sound passes.
class QuietBar : public QWidget {
  Q_OBJECT

 public:
  explicit QuietBar(PassController& controller, QWidget* parent = nullptr);
  /// The first press says from where, the second to where.
  void quietHere();
  [[nodiscard]] std::optional<double> from_s() const { return from_s_; }

 signals:
  void fromChanged();

 private:
  void refresh();
  void listen();

  PassController& controller_;
  std::optional<double> from_s_;
  QPushButton* here_;
  QPushButton* none_;
  QComboBox* slowness_;
  QPushButton* listen_;
  QLabel* words_;
  ClipVoice voice_;
};

}  // namespace fin::app
