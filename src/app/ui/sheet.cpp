// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/sheet.h"

#include <QApplication>
#include <QKeyEvent>
#include <QPainter>

#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kSheetEdge_px = 28;
constexpr int kShade = 110;  ///< of 255: what lies under it

}  // namespace

Sheet::Sheet(QWidget& window) : QWidget(&window) {
  setObjectName("sheet");
  window.installEventFilter(this);
  hide();
}

void Sheet::put(QWidget* content, QWidget* first) {
  const bool shown = content_ != nullptr;
  if (shown) content_->deleteLater();
  if (!shown) before_ = QApplication::focusWidget();
  content_ = content;
  content_->setParent(this);
  content_->setProperty("card", true);
  layOut();
  content_->show();
  show();
  raise();
  first->setFocus();
}

void Sheet::away() {
  if (content_ == nullptr) return;
  content_->deleteLater();
  content_ = nullptr;
  hide();
  if (before_) before_->setFocus();
}

void Sheet::layOut() {
  setGeometry(parentWidget()->rect());
  if (content_ == nullptr) return;
  const QSize room = size() - QSize(2 * kSheetEdge_px, 2 * kSheetEdge_px);
  const QSize wanted = content_->sizeHint().boundedTo(room);
  content_->setGeometry((width() - wanted.width()) / 2, (height() - wanted.height()) / 2, wanted.width(),
                        wanted.height());
}

bool Sheet::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize) layOut();
  return false;
}

void Sheet::paintEvent(QPaintEvent* /*event*/) {
  QPainter(this).fillRect(rect(), QColor(0, 0, 0, kShade));
}

void Sheet::mousePressEvent(QMouseEvent* event) {
  if (content_ != nullptr && !content_->geometry().contains(event->pos())) away();
}

void Sheet::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return away();
  event->accept();  // what lies under it does not hear of it
}

}  // namespace fin::app
