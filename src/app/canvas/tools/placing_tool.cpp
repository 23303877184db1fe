// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/canvas/tools/placing_tool.h"

#include "app/canvas/view/footage_view.h"
#include "app/ui/theme.h"

namespace fin::app {

constexpr double kFineShare = 0.125;
constexpr double kArrowStep_px = 0.5;
constexpr double kShiftTimes = 10.0;

void PlacingTool::aimAt(PixelPoint at) {
  aim_ = at;
  emit changed();
}

void PlacingTool::hover(PixelPoint at) {
  aimAt(at);
}

void PlacingTool::press(PixelPoint at) {
  pressed_ = grabbed_ = at;
  aimAt(at);
}

void PlacingTool::drag(PixelPoint at) {
  if (pressed_) aimAt(grabbed_ + (at - *pressed_) * kFineShare);
}

void PlacingTool::release(PixelPoint) {
  if (!pressed_ || !aim_) return;
  pressed_.reset();
  placed(*aim_);
}

bool PlacingTool::key(const QKeyEvent& event) {
  if (!aim_) return false;
  const double step = kArrowStep_px * (event.modifiers().testFlag(Qt::ShiftModifier) ? kShiftTimes : 1.0);
  switch (event.key()) {
    case Qt::Key_Left:
      aimAt(*aim_ + PixelPoint{-step, 0.0});
      return true;
    case Qt::Key_Right:
      aimAt(*aim_ + PixelPoint{step, 0.0});
      return true;
    case Qt::Key_Up:
      aimAt(*aim_ + PixelPoint{0.0, -step});
      return true;
    case Qt::Key_Down:
      aimAt(*aim_ + PixelPoint{0.0, step});
      return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      placed(*aim_);
      return true;
    default:
      return false;
  }
}

void PlacingTool::paint(QPainter& painter, const FootageView& view) const {
  if (!aim_) return;
  const QPointF at = view.toView(*aim_);
  painter.setPen(QPen(Qt::white, 3.0));
  const auto cross = [&] {
    painter.drawLine(at + QPointF(-14, 0), at + QPointF(-4, 0));
    painter.drawLine(at + QPointF(4, 0), at + QPointF(14, 0));
    painter.drawLine(at + QPointF(0, -14), at + QPointF(0, -4));
    painter.drawLine(at + QPointF(0, 4), at + QPointF(0, 14));
  };
  cross();
  painter.setPen(QPen(theme().accent, 1.5));
  cross();
}

}  // namespace fin::app
