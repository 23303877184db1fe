// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/canvas/tools/tool.h"

namespace fin::app {

/// Puts a point to a fraction of a pixel. By mouse: press where it belongs, and while the button is held the
/// cross moves at an eighth of the hand's speed; letting go places it. By keys: the arrows move the cross by
/// half a pixel (with Shift by five), Enter places it.
class PlacingTool : public Tool {
  Q_OBJECT

 public:
  using Tool::Tool;

  void hover(PixelPoint at) override;
  void press(PixelPoint at) override;
  void drag(PixelPoint at) override;
  void release(PixelPoint at) override;
  bool key(const QKeyEvent& event) override;
  void paint(QPainter& painter, const FootageView& view) const override;
  [[nodiscard]] std::optional<PixelPoint> aim() const override { return aim_; }
  void aimAt(PixelPoint at);

 protected:
  virtual void placed(PixelPoint at) = 0;

 private:
  std::optional<PixelPoint> aim_;
  std::optional<PixelPoint> pressed_;
  PixelPoint grabbed_;
};

}  // namespace fin::app
