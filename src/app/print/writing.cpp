// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/writing.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QFont>
#include <QObject>
#include <QPageSize>
#include <QPdfWriter>
#include <QSaveFile>
#include <QTextDocument>

namespace fin::app {
namespace {

constexpr int kResolution_dpi = 150;

Error notWritable(const QFileDevice& file) {
  return {ErrorCode::NotWritable,
          QObject::tr("%1 cannot be written: %2").arg(file.fileName(), file.errorString()).toStdString(),
          file.fileName().toStdString()};
}

void printPages(const QString& html, const QString& title, int points, Paper paper, QPdfWriter& writer) {
  const bool pocket = paper == Paper::A6;
  writer.setPageSize(QPageSize(pocket ? QPageSize::A6 : QPageSize::A4));
  const double margin_mm = pocket ? 6.0 : 14.0;
  writer.setPageMargins(QMarginsF(margin_mm, margin_mm, margin_mm, margin_mm), QPageLayout::Millimeter);
  writer.setResolution(kResolution_dpi);
  writer.setTitle(title);
  QTextDocument document;
  document.setDefaultFont(QFont("Inter", points));
  document.setDefaultStyleSheet(
      QString("body { font-family: Inter; font-size: %1pt; color: #1e262c; } h1 { font-size: %2pt; }"
              "h2 { font-size: %3pt; } td, th { padding: 4px 6px; } th { text-align: left; background: "
              "#efe8da; }")
          .arg(points)
          .arg(2 * points)
          .arg(points + 3));
  document.documentLayout()->setPaintDevice(&writer);
  // A page size of its own keeps the document from adding margins to those of the page.
  document.setPageSize(QSizeF(writer.width(), writer.height()));
  document.setDocumentMargin(0);
  document.setHtml(html);
  document.print(&writer);
}

}  // namespace

Result<void> writeFile(const QString& name, const QByteArray& content) {
  QSaveFile file(name);
  if (!file.open(QIODevice::WriteOnly) || file.write(content) != content.size() || !file.commit())
    return tl::unexpected(notWritable(file));
  return {};
}

QString withEnding(const QString& file, const QString& ending) {
  return file.endsWith(ending, Qt::CaseInsensitive) ? file : file + ending;
}

Result<void> writePdf(const QString& file, const std::function<void(QPdfWriter&)>& draw) {
  QByteArray pages;
  QBuffer buffer(&pages);
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    draw(writer);
  }
  return writeFile(file, pages);
}

Result<void> printHtml(const QString& html, const QString& title, const QString& file, int points,
                       Paper paper) {
  return writePdf(file, [&](QPdfWriter& writer) { printPages(html, title, points, paper, writer); });
}

}  // namespace fin::app
