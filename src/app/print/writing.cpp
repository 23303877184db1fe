// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/writing.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QFont>
#include <QObject>
#include <QPageSize>
#include <QPdfWriter>
#include <QSaveFile>
#include <QTextBlock>
#include <QTextDocument>

#include "app/print/pdf_bookmarks.h"

namespace fin::app {
namespace {

constexpr int kResolution_dpi = 150;

Error notWritable(const QFileDevice& file) {
  return {ErrorCode::NotWritable,
          QObject::tr("%1 cannot be written: %2").arg(file.fileName(), file.errorString()).toStdString(),
          file.fileName().toStdString()};
}

/// Where the headings of a document came to stand.
std::vector<Bookmark> headingsOf(const QTextDocument& document, const QPdfWriter& writer) {
  std::vector<Bookmark> out;
  const double content = writer.height(), margin = writer.pageLayout().marginsPixels(kResolution_dpi).top();
  const double page = writer.pageLayout().fullRectPixels(kResolution_dpi).height();
  for (QTextBlock block = document.begin(); block.isValid(); block = block.next()) {
    const int level = block.blockFormat().headingLevel();
    if (level < 1 || block.text().trimmed().isEmpty()) continue;
    const double top = document.documentLayout()->blockBoundingRect(block).top();
    const int number = static_cast<int>(top / content);
    // The title stands beside the sections, not over them.
    out.push_back({block.text(), std::max(1, level - 1), number, (margin + top - number * content) / page});
  }
  return out;
}

std::vector<Bookmark> printPages(const QString& html, const QString& title, const Printing& how,
                                 QPdfWriter& writer) {
  const bool pocket = how.paper == Paper::A6;
  writer.setPageSize(QPageSize(pocket ? QPageSize::A6 : QPageSize::A4));
  const double margin_mm = pocket ? 6.0 : 14.0;
  writer.setPageMargins(QMarginsF(margin_mm, margin_mm, margin_mm, margin_mm), QPageLayout::Millimeter);
  writer.setResolution(kResolution_dpi);
  writer.setTitle(title);
  QTextDocument document;
  document.setDefaultFont(QFont("Inter", how.points));
  document.setDefaultStyleSheet(
      QString("body { font-family: Inter; font-size: %1pt; color: #1e262c; } h1 { font-size: %2pt; }"
              "h2 { font-size: %3pt; } td, th { padding: 4px 6px; } th { text-align: left; background: "
              "#efe8da; }")
          .arg(how.points)
          .arg(2 * how.points)
          .arg(how.points + 3));
  document.documentLayout()->setPaintDevice(&writer);
  // A page size of its own keeps the document from adding margins to those of the page.
  document.setPageSize(QSizeF(writer.width(), writer.height()));
  document.setDocumentMargin(0);
  document.setHtml(html);
  document.print(&writer);
  return headingsOf(document, writer);
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

namespace {

QByteArray drawnPdf(const std::function<void(QPdfWriter&)>& draw) {
  QByteArray pages;
  QBuffer buffer(&pages);
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    draw(writer);
  }
  return pages;
}

}  // namespace

Result<void> writePdf(const QString& file, const std::function<void(QPdfWriter&)>& draw) {
  return writeFile(file, drawnPdf(draw));
}

Result<void> printHtml(const QString& html, const QString& title, const QString& file, const Printing& how) {
  std::vector<Bookmark> headings;
  const QByteArray pages =
      drawnPdf([&](QPdfWriter& writer) { headings = printPages(html, title, how, writer); });
  if (!how.contents) return writeFile(file, pages);
  const auto whole = withBookmarks(pages, headings);
  if (!whole) return tl::unexpected(whole.error());
  return writeFile(file, *whole);
}

}  // namespace fin::app
