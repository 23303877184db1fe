// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/shipped.h"

#include <QCoreApplication>
#include <QDir>

namespace fin::app {

std::filesystem::path shipped(const QString& folder) {
  const QDir program(QCoreApplication::applicationDirPath());
  // Installed beside bin; built in build/release.
  const QString installed = program.filePath("../share/agile-fin/" + folder);
  const QString built = program.filePath("../../" + folder);
  const bool isInstalled = QDir(installed).exists() || !QDir(built).exists();
  return std::filesystem::path(QDir::cleanPath(isInstalled ? installed : built).toStdString());
}

}  // namespace fin::app
