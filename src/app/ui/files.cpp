// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/files.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>

#include "app/ui/settings.h"

namespace fin::app {
namespace {

QString rememberFolder(const QString& file) {
  if (!file.isEmpty()) Settings::all().setFileFolder(QFileInfo(file).path());
  return file;
}

}  // namespace

QString askForClip(QWidget* parent, const QString& title, const QString& filter) {
  Settings& settings = Settings::all();
  const QString file = QFileDialog::getOpenFileName(parent, title, settings.clipFolder(), filter);
  if (!file.isEmpty()) settings.setClipFolder(QFileInfo(file).path());
  return file;
}

QString askForFile(QWidget* parent, const QString& title, const QString& filter) {
  return rememberFolder(QFileDialog::getOpenFileName(parent, title, Settings::all().fileFolder(), filter));
}

QStringList askForFiles(QWidget* parent, const QString& title, const QString& filter) {
  const QStringList files =
      QFileDialog::getOpenFileNames(parent, title, Settings::all().fileFolder(), filter);
  if (!files.isEmpty()) rememberFolder(files.front());
  return files;
}

QString askForFolder(QWidget* parent, const QString& title) {
  return QFileDialog::getExistingDirectory(parent, title, Settings::all().clipFolder());
}

QString askWhereTo(QWidget* parent, const QString& title, const QString& name, const QString& filter) {
  const QString folder = Settings::all().fileFolder();
  const QString begin = folder.isEmpty() ? name : QDir(folder).filePath(name);
  return rememberFolder(QFileDialog::getSaveFileName(parent, title, begin, filter));
}

}  // namespace fin::app
