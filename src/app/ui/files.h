// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>

class QWidget;

namespace fin::app {

/// Asks for a file to read, beginning where the last one of its kind was: clips where clips were taken from,
/// anything else where something was last read or written. Empty where none was chosen.
QString askForClip(QWidget* parent, const QString& title, const QString& filter);
QString askForFile(QWidget* parent, const QString& title, const QString& filter);
/// Several of them.
QStringList askForFiles(QWidget* parent, const QString& title, const QString& filter);
QString askForFolder(QWidget* parent, const QString& title);
/// Asks where something is to be written, with a name to begin with.
QString askWhereTo(QWidget* parent, const QString& title, const QString& name, const QString& filter = {});

}  // namespace fin::app
