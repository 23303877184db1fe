// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/tools/ruler_tool.h"

#include "app/look/theme.h"
#include "app/places/bench/footage_view.h"

namespace fin::app {

RulerTool::RulerTool(PassDesk& desk, Millimetres length, QObject* parent)
    : PlacingTool(parent), desk_(desk), length_(length) {}

QString RulerTool::hint() const {
  return from_ ? tr("Now the other end of the known length. Hold to move slowly; or arrow keys and Enter.")
               : tr("Press on one end of the known length. Hold to move slowly; or arrow keys and Enter.");
}

void RulerTool::placed(PixelPoint at) {
  if (!from_) {
    from_ = at;
    emit changed();
    return;
  }
  const PixelPoint from = *from_;
  desk_.edit(tr("Set the known length"), [&](PassRequest& request) {
    const Millimetres u95 = request.scale ? request.scale->lengthU95 : Millimetres(0.0);
    request.scale = ScaleMark{from, at, length_, u95};
  });
  from_.reset();
  emit finished();
}

void RulerTool::paint(QPainter& painter, const FootageView& view) const {
  if (from_ && aim()) {
    painter.setPen(QPen(theme().accent, 1.5, Qt::DashLine));
    painter.drawLine(view.toView(*from_), view.toView(*aim()));
  }
  PlacingTool::paint(painter, view);
}

}  // namespace fin::app
