// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/rack_photo.h"

#include <QDropEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QMimeData>
#include <QUrl>
#include <QVBoxLayout>

#include "app/ui/files.h"
#include "app/ui/photo.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr QSize kShown{290, 180};

}  // namespace

RackPhoto::RackPhoto(QWidget* parent)
    : QWidget(parent),
      picture_(new QLabel),
      choose_(namedButton(tr("Photo …"), "choosePhoto")),
      remove_(namedButton(tr("Remove the photo"), "removePhoto")) {
  setAcceptDrops(true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(4);
  picture_->setObjectName("rackPhoto");
  picture_->setAccessibleName(tr("Photo of the model"));
  picture_->setWordWrap(true);
  layout->addWidget(picture_);
  auto* row = new QHBoxLayout;
  row->addWidget(choose_);
  row->addWidget(remove_);
  row->addStretch();
  layout->addLayout(row);
  connect(choose_, &QPushButton::clicked, this, [this] {
    const QString file =
        askForFile(this, tr("Photo of the model"), tr("Pictures (*.png *.jpg *.jpeg *.webp *.bmp)"));
    if (!file.isEmpty()) take(file);
  });
  connect(remove_, &QPushButton::clicked, this, [this] { emit chosen({}); });
}

void RackPhoto::show(const QString& file, bool any) {
  const QPixmap photo = photoWithin(file, kShown);
  if (photo.isNull()) {
    picture_->setText(file.isEmpty() ? QString() : whyNoPhoto(file));
  } else {
    picture_->setPixmap(photo);
  }
  picture_->setVisible(!file.isEmpty());
  enableOr(*choose_, any, tr("Choose a rig in the table first."));
  choose_->setToolTip(any ? tr("Or drop a picture here.") : choose_->toolTip());
  remove_->setVisible(!file.isEmpty());
}

void RackPhoto::take(const QString& file) {
  if (const QString why = whyNoPhoto(file); !why.isEmpty()) return emit refused(why);
  emit chosen(QFileInfo(file).absoluteFilePath());
}

void RackPhoto::dragEnterEvent(QDragEnterEvent* event) {
  if (choose_->isEnabled() && event->mimeData()->urls().size() == 1) event->acceptProposedAction();
}

void RackPhoto::dropEvent(QDropEvent* event) {
  take(event->mimeData()->urls().first().toLocalFile());
}

}  // namespace fin::app
