// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/photo.h"

#include <QFileInfo>
#include <QImageReader>
#include <QPixmapCache>

namespace fin::app {

QPixmap photoWithin(const QString& file, const QSize& most) {
  const QFileInfo info(file);
  if (file.isEmpty() || !info.isFile()) return {};
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
