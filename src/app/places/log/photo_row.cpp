// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/photo_row.h"

#include <QDropEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QMimeData>
#include <QUrl>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/files.h"
#include "app/ui/photo.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

constexpr QSize kShown{150, 100};
constexpr int kRoom_px = 34;  ///< for the file's name

}  // namespace

PhotoRow::PhotoRow(const char* name, QWidget* parent)
    : QWidget(parent),
      photos_(new QListWidget),
      remove_(namedButton(tr("Take the photo out"), "takeOutPhoto")),
      trouble_(faintLabel({})) {
  setAcceptDrops(true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  photos_->setObjectName(name);
  photos_->setAccessibleName(tr("Photos"));
  photos_->setViewMode(QListView::IconMode);
  photos_->setIconSize(kShown);
  photos_->setFixedHeight(kShown.height() + kRoom_px);
  photos_->setWrapping(false);
  photos_->setMovement(QListView::Static);
  layout->addWidget(photos_);
  auto* row = new QHBoxLayout;
  auto* add = namedButton(tr("Add a photo …"), "addPhoto");
  row->addWidget(add);
  row->addWidget(remove_);
  trouble_->setObjectName("photoTrouble");
  setLook(*trouble_, "trouble", true);
  row->addWidget(trouble_, 1);
  layout->addLayout(row);
  connect(add, &QPushButton::clicked, this, [this] {
    const QString file = askForFile(this, tr("Photo"), tr("Pictures (*.png *.jpg *.jpeg *.webp *.bmp)"));
    if (!file.isEmpty()) this->add({file});
  });
  connect(remove_, &QPushButton::clicked, this, [this] {
    const int chosen = photos_->currentRow();
    if (chosen < 0) return;
    std::vector<std::string> left = files_;
    left.erase(left.begin() + chosen);
    emit changed(left);
  });
}

void PhotoRow::show(const std::vector<std::string>& files) {
  files_ = files;
  photos_->clear();
  for (const std::string& file : files) {
    const QString name = QString::fromStdString(file);
    const QPixmap photo = photoWithin(name, kShown);
    auto* item = new QListWidgetItem(QFileInfo(name).fileName(), photos_);
    if (photo.isNull()) {
      item->setText(whyNoPhoto(name));
    } else {
      item->setIcon(photo);
    }
  }
  photos_->setVisible(!files.empty());
  remove_->setVisible(!files.empty());
  if (!files.empty()) photos_->setCurrentRow(0);
}

void PhotoRow::add(const QStringList& files) {
  std::vector<std::string> all = files_;
  QStringList troubles;
  for (const QString& file : files) {
    const QString why = whyNoPhoto(file);
    const std::string path = QFileInfo(file).absoluteFilePath().toStdString();
    if (!why.isEmpty()) {
      troubles += why;
    } else if (std::find(all.begin(), all.end(), path) == all.end()) {
      all.push_back(path);
    }
  }
  trouble_->setText(troubles.join(" "));
  if (all != files_) emit changed(all);
}

void PhotoRow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void PhotoRow::dropEvent(QDropEvent* event) {
  QStringList files;
  for (const QUrl& url : event->mimeData()->urls()) files += url.toLocalFile();
  add(files);
}

}  // namespace fin::app
