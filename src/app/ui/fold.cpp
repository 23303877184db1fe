// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/fold.h"

#include <QVBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {

Fold::Fold(const QString& title, const char* name, QWidget* content, QWidget* parent)
    : QFrame(parent), title_(title), head_(namedButton({}, name)), state_(faintLabel({})), content_(content) {
  setProperty("card", true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(7, 5, 7, 7);
  layout->setSpacing(4);
  head_->setProperty("fold", true);
  head_->setAccessibleName(title);
  layout->addWidget(head_);
  state_->setContentsMargins(5, 0, 4, 0);
  layout->addWidget(state_);
  content_->setContentsMargins(5, 0, 4, 0);
  layout->addWidget(content_);
  connect(head_, &QPushButton::clicked, this, [this] { setOpen(!isOpen()); });
  setState({});
  setOpen(false);
}

bool Fold::isOpen() const {
  return !content_->isHidden();
}

void Fold::setOpen(bool open) {
  content_->setVisible(open);
  head_->setText((open ? QString(QChar(0x2212)) : QString("+")) + "  " + title_);
  if (open) emit opened();
}

void Fold::setState(const QString& text) {
  state_->setText(text);
  state_->setVisible(!text.isEmpty());
}

}  // namespace fin::app
