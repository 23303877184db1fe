// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/look/still_view.h"

#include <QPainter>
#include <algorithm>

#include "app/phrases/words.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kAround = 2.2;  ///< spans of the marks that are shown about them
constexpr double kLeastAround_px = 160.0;
constexpr double kMarkRadius = 7.0;
constexpr double kPlate_px = 4.0;  ///< about words on a picture

void paintPlate(QPainter& painter, QPointF at, const QString& text) {
  const QRectF words = painter.fontMetrics().boundingRect(text).translated(at.toPoint());
  painter.fillRect(words.adjusted(-kPlate_px, -1.0, kPlate_px, 1.0), QColor(0, 0, 0, 160));
  painter.setPen(Qt::white);
  painter.drawText(at, text);
}

}  // namespace

StillView::StillView(QWidget* parent) : QWidget(parent) {
  setMinimumSize(200, 130);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void StillView::show(std::optional<ShownStill> still) {
  still_ = std::move(still);
  update();
}

/// The part of the picture that is shown: about the marks; all of it where there are none.
QRectF StillView::cut() const {
  const QRectF whole(QPointF(0, 0), still_->picture.size());
  if (still_->still.marks.empty()) return whole;
  QRectF marks;
  for (const auto& [name, at] : still_->still.marks) marks |= QRectF(at.x_px - 0.5, at.y_px - 0.5, 1.0, 1.0);
  const double span = std::hypot(marks.width(), marks.height());
  const double wide = std::min(std::max(kAround * span, kLeastAround_px), whole.width());
  const double high = wide * height() / std::max(1, width());
  QRectF out(0, 0, wide, high);
  out.moveCenter(marks.center());
  out.moveLeft(std::clamp(out.left(), 0.0, std::max(0.0, whole.width() - wide)));
  out.moveTop(std::clamp(out.top(), 0.0, std::max(0.0, whole.height() - high)));
  return out;
}

void StillView::paintEvent(QPaintEvent* /*event*/) {
  QPainter painter(this);
  painter.fillRect(rect(), theme().mat);
  if (!still_) return;
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  const QRectF from = cut();
  const double scale = std::min(width() / from.width(), height() / from.height());
  QRectF to(0, 0, from.width() * scale, from.height() * scale);
  to.moveCenter(QRectF(rect()).center());
  painter.drawImage(to, still_->picture, from);
  for (const auto& [name, at] : still_->still.marks) {
    const QPointF p = to.topLeft() + (QPointF(at.x_px, at.y_px) - from.topLeft()) * scale;
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(Qt::white, 4.0));
    painter.drawEllipse(p, kMarkRadius, kMarkRadius);
    painter.setPen(QPen(markColour(static_cast<int>(name)), 2.2));
    painter.drawEllipse(p, kMarkRadius, kMarkRadius);
    paintPlate(painter, p + QPointF(-14, name == MarkName::Nose ? -14 : 25), spokenName(name));
  }
  painter.setFont(smallFont());
  const QString when = tr("%1 s").arg(still_->still.at.value(), 0, 'f', 2);
  paintPlate(painter, QPointF(10, height() - 10), still_->doubt ? tr("least sure, %1").arg(when) : when);
}

}  // namespace fin::app
