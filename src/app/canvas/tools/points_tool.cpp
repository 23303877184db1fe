// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/canvas/tools/points_tool.h"

#include "app/canvas/view/footage_view.h"
#include "app/ui/theme.h"

namespace fin::app {

PointsTool::PointsTool(QStringList words, std::function<void(const std::vector<PixelPoint>&)> drawn,
                       QObject* parent)
    : PlacingTool(parent), words_(std::move(words)), drawn_(std::move(drawn)) {}

QString PointsTool::hint() const {
  const auto next = std::min(static_cast<qsizetype>(points_.size()), words_.size() - 1);
  return tr("%1 Hold to move slowly; or arrow keys and Enter.").arg(words_[next]);
}

void PointsTool::placed(PixelPoint at) {
  points_.push_back(at);
  emit changed();
  if (std::ssize(points_) < words_.size()) return;
  drawn_(points_);
  emit finished();
}

void PointsTool::paint(QPainter& painter, const FootageView& view) const {
  painter.setPen(QPen(theme().accent, 1.5, Qt::DashLine));
  for (std::size_t i = 0; i < points_.size(); ++i) {
    const bool last = i + 1 == points_.size();
    if (!last || aim())
      painter.drawLine(view.toView(points_[i]), view.toView(last ? *aim() : points_[i + 1]));
  }
  PlacingTool::paint(painter, view);
}

}  // namespace fin::app
