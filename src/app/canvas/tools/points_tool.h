// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>
#include <functional>
#include <vector>

#include "app/canvas/tools/placing_tool.h"

namespace fin::app {

/// Points in the picture, one after the other: the two of a line or a length, the four of a rectangle.
class PointsTool : public PlacingTool {
  Q_OBJECT

 public:
  /// `words` says for each point what to press on; `placed` gets as many.
  PointsTool(QStringList words, std::function<void(const std::vector<PixelPoint>&)> drawn,
             QObject* parent = nullptr);
  [[nodiscard]] QString hint() const override;
  void paint(QPainter& painter, const FootageView& view) const override;

 protected:
  void placed(PixelPoint at) override;

 private:
  QStringList words_;
  std::function<void(const std::vector<PixelPoint>&)> drawn_;
  std::vector<PixelPoint> points_;
};

}  // namespace fin::app
