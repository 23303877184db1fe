// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/photo.h"

#include <QFileInfo>
#include <QImageReader>
#include <QPixmapCache>

namespace fin::app {

namespace {

constexpr qint64 kMega = 1000000;
constexpr qint64 kLargest_MB = 50;

}  // namespace

QString whyNoPhoto(const QString& file) {
  const QFileInfo info(file);
  if (!info.isFile()) return QObject::tr("%1 is not there.").arg(info.fileName());
  if (info.size() > kLargest_MB * kMega)
    return QObject::tr("%1 is %2 MB large; photos of up to %3 MB are shown. Save a smaller copy of it.")
        .arg(info.fileName())
        .arg(info.size() / kMega)
        .arg(kLargest_MB);
  if (!QImageReader(file).canRead())
    return QObject::tr("%1 is not a picture that can be read.").arg(info.fileName());
  return {};
}

QPixmap photoWithin(const QString& file, const QSize& most) {
  const QFileInfo info(file);
  if (file.isEmpty() || !info.isFile() || info.size() > kLargest_MB * kMega) return {};
  const QString key = QString("%1 %2 %3 %4")
                          .arg(file)
                          .arg(info.lastModified().toMSecsSinceEpoch())
                          .arg(most.width())
                          .arg(most.height());
  QPixmap out;
  if (QPixmapCache::find(key, &out)) return out;
  QImageReader reader(file);
  reader.setAutoTransform(true);
  const bool lies = (reader.transformation() & QImageIOHandler::TransformationRotate90) != 0;
  const QSize whole = reader.size();
  if (whole.isValid())
    reader.setScaledSize(whole.scaled(lies ? most.transposed() : most, Qt::KeepAspectRatio));
  out = QPixmap::fromImageReader(&reader);
  QPixmapCache::insert(key, out);
  return out;
}

}  // namespace fin::app
