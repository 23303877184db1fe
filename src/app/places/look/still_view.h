// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

#include "app/controllers/look_through.h"

namespace fin::app {

/// One frame of a pass, cut about the lure, with its marks drawn on and said.
class StillView : public QWidget {
  Q_OBJECT

 public:
  explicit StillView(QWidget* parent = nullptr);
  /// None for an empty frame.
  void show(std::optional<ShownStill> still);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  [[nodiscard]] QRectF cut() const;

  std::optional<ShownStill> still_;
};

}  // namespace fin::app
