// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QByteArray>
#include <QString>

#include "core/units/result.h"

namespace fin::app {

/// Writes a file whole or not at all. NotWritable with the file's name.
Result<void> writeFile(const QString& file, const QByteArray& content);

/// A page of the HTML that Qt's rich text knows, as A4 PDF. NotWritable with the file's name.
Result<void> printHtml(const QString& html, const QString& title, const QString& file, int points);

/// The writer of PDF says nothing of a place that cannot be written, so the file is tried first.
Result<void> probeFile(const QString& file);

}  // namespace fin::app
