// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/tools/line_tool.h"

#include "app/look/theme.h"
#include "app/places/bench/footage_view.h"

namespace fin::app {

LineTool::LineTool(Words words, std::function<void(PixelLine)> drawn, QObject* parent)
    : PlacingTool(parent), words_(std::move(words)), drawn_(std::move(drawn)) {}

QString LineTool::hint() const {
  return tr("%1 Hold to move slowly; or arrow keys and Enter.").arg(from_ ? words_.second : words_.first);
}

void LineTool::placed(PixelPoint at) {
  if (!from_) {
    from_ = at;
    emit changed();
    return;
  }
  drawn_({*from_, at});
  from_.reset();
  emit finished();
}

void LineTool::paint(QPainter& painter, const FootageView& view) const {
  if (from_ && aim()) {
    painter.setPen(QPen(theme().accent, 1.5, Qt::DashLine));
    painter.drawLine(view.toView(*from_), view.toView(*aim()));
  }
  PlacingTool::paint(painter, view);
}

}  // namespace fin::app
