// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>

#include "app/tools/placing_tool.h"
#include "core/calibration/tank_frame.h"

namespace fin::app {

/// Two points in the picture, one after the other: a plumb line, a waterline, a bottom, or the ends of a
/// length.
class LineTool : public PlacingTool {
  Q_OBJECT

 public:
  struct Words {
    QString first;  ///< what to press on first
    QString second;
  };
  LineTool(Words words, std::function<void(PixelLine)> drawn, QObject* parent = nullptr);
  [[nodiscard]] QString hint() const override;
  void paint(QPainter& painter, const FootageView& view) const override;

 protected:
  void placed(PixelPoint at) override;

 private:
  Words words_;
  std::function<void(PixelLine)> drawn_;
  std::optional<PixelPoint> from_;
};

}  // namespace fin::app
