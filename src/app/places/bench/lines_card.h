// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPushButton>
#include <QWidget>
#include <vector>

#include "app/controllers/pass_controller.h"

namespace fin::app {

/// Plumb line, waterline, bottom and the line of the pull: drawn by two points, or found in the picture and
/// taken by hand.
class LinesCard : public QWidget {
  Q_OBJECT

 public:
  enum class Line { Plumb, Waterline, Bottom, Pull };

  explicit LinesCard(PassController& controller, QWidget* parent = nullptr);
  void takeLine(Line line, const PixelLine& drawn);

 signals:
  void lineWanted(Line line);
  void foundLinesWanted(Line line);
  void stateChanged(const QString& text);

 private:
  void refresh();

  PassController& controller_;
  std::vector<QPushButton*> away_;
};

}  // namespace fin::app
