// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QTimer>
#include <QWidget>

#include "app/controllers/pacer.h"

namespace fin::app {

/// The beat to be seen: a mark that runs along the cycle, with a post for every twitch, large enough for two
/// metres.
class BeatMark : public QWidget {
  Q_OBJECT

 public:
  explicit BeatMark(Pacer& pacer, QWidget* parent = nullptr);
  void preview(const Cadence& cadence);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  Pacer& pacer_;
  Cadence cadence_;
  QTimer repaint_;
};

}  // namespace fin::app
