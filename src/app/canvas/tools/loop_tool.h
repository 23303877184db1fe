// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <vector>

#include "app/canvas/tools/placing_tool.h"

namespace fin::app {

/// A closed line around something. By mouse: press, draw around it, let go. By keys: the arrows move the
/// cross, Enter sets a corner; Enter twice on one spot closes the line.
class LoopTool : public PlacingTool {
  Q_OBJECT

 public:
  /// `what` is drawn around: "the lure".
  LoopTool(QString what, std::function<void(const std::vector<PixelPoint>&)> drawn,
           QObject* parent = nullptr);
  [[nodiscard]] QString hint() const override;
  void press(PixelPoint at) override;
  void drag(PixelPoint at) override;
  void release(PixelPoint at) override;
  void paint(QPainter& painter, const FootageView& view) const override;

 protected:
  void placed(PixelPoint at) override;

 private:
  void close();

  QString what_;
  std::function<void(const std::vector<PixelPoint>&)> drawn_;
  std::vector<PixelPoint> corners_;
};

}  // namespace fin::app
