// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/canvas/tools/loop_tool.h"

#include "app/canvas/view/footage_view.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kCornersApart_px = 2.0;
constexpr std::size_t kFewestCorners = 3;
constexpr double kSmallest_px = 5.0;  ///< a line that stays nearer to its start is a slip of the hand

}  // namespace

LoopTool::LoopTool(QString what, std::function<void(const std::vector<PixelPoint>&)> drawn, QObject* parent)
    : PlacingTool(parent), what_(std::move(what)), drawn_(std::move(drawn)) {}

QString LoopTool::hint() const {
  return tr("Draw once around %1. Or arrow keys and Enter for each corner, Enter twice to close.").arg(what_);
}

void LoopTool::press(PixelPoint at) {
  corners_ = {at};
  aimAt(at);
}

void LoopTool::drag(PixelPoint at) {
  if (!corners_.empty() && length(at - corners_.back()).value() > kCornersApart_px) corners_.push_back(at);
  aimAt(at);
}

void LoopTool::release(PixelPoint at) {
  drag(at);
  close();
}

void LoopTool::placed(PixelPoint at) {
  if (!corners_.empty() && corners_.back() == at) return close();
  corners_.push_back(at);
  emit changed();
}

void LoopTool::close() {
  const bool large = std::any_of(corners_.begin(), corners_.end(), [this](PixelPoint p) {
    return length(p - corners_.front()).value() > kSmallest_px;
  });
  if (corners_.size() < kFewestCorners || !large) {
    corners_.clear();
    emit changed();
    return;
  }
  drawn_(corners_);
  emit finished();
}

void LoopTool::paint(QPainter& painter, const FootageView& view) const {
  QPolygonF line;
  for (const PixelPoint p : corners_) line << view.toView(p);
  painter.setPen(QPen(Qt::white, 3.5));
  painter.drawPolyline(line);
  painter.setPen(QPen(theme().accent, 1.8));
  painter.drawPolyline(line);
  PlacingTool::paint(painter, view);
}

}  // namespace fin::app
