// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/shipped.h"

#include <QCoreApplication>
#include <QDir>

namespace fin::app {

constexpr int kFurthestUp = 4;

std::filesystem::path shipped(const QString& folder) {
  const QDir program(QCoreApplication::applicationDirPath());
  const QString installed = program.filePath("../share/agile-fin/" + folder);
  QString found = installed;
  // Built, it lies somewhere above the program.
  for (QString up = "../"; !QDir(found).exists() && up.size() <= 3 * kFurthestUp; up += "../")
    found = program.filePath(up + folder);
  return std::filesystem::path(QDir::cleanPath(QDir(found).exists() ? found : installed).toStdString());
}

}  // namespace fin::app
