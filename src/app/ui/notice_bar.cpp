// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/notice_bar.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/ui/pieces.h"

namespace fin::app {

NoticeBar::NoticeBar(QWidget* parent) : QFrame(parent), text_(new QLabel) {
  setObjectName("notice");
  setProperty("card", true);
  text_->setObjectName("noticeText");
  text_->setTextFormat(Qt::PlainText);
  text_->setWordWrap(true);
  setLook(*text_, "trouble", true);
  auto* close = namedButton(tr("Close"), "closeNotice");
  connect(close, &QPushButton::clicked, this, &QWidget::hide);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 6, 12, 6);
  row->addWidget(text_, 1);
  row->addWidget(close);
  hide();
}

void NoticeBar::say(const QString& message) {
  text_->setText(breakable(message));
  setAccessibleName(message);
  show();
}

QString NoticeBar::message() const {
  return isHidden() ? QString() : accessibleName();
}

}  // namespace fin::app
