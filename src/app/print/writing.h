// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QByteArray>
#include <QString>
#include <functional>

#include "core/units/result.h"

class QPdfWriter;

namespace fin::app {

/// Writes a file whole or not at all. NotWritable with the file's name.
Result<void> writeFile(const QString& file, const QByteArray& content);

/// The name that was typed, with the ending of what is written into it.
QString withEnding(const QString& file, const QString& ending);

/// What is drawn, as PDF. NotWritable with the file's name.
Result<void> writePdf(const QString& file, const std::function<void(QPdfWriter&)>& draw);

enum class Paper { A4, A6 };
struct Printing {
  int points = 9;  ///< of its letters
  Paper paper = Paper::A4;
  bool contents = false;  ///< a bookmark for each heading
};
/// Pages of the HTML that Qt's rich text knows, as PDF. NotWritable with the file's name.
Result<void> printHtml(const QString& html, const QString& title, const QString& file, const Printing& how);

}  // namespace fin::app
