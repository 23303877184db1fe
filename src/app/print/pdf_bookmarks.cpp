// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/pdf_bookmarks.h"

#define POINTERHOLDER_TRANSITION 4
#include <qpdf/QPDF.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFWriter.hh>

#include <algorithm>

namespace fin::app {
namespace {

using Pages = std::vector<QPDFPageObjectHelper>;

QPDFObjectHandle entryFor(QPDF& pdf, const Bookmark& mark, Pages& pages) {
  QPDFPageObjectHelper& page =
      pages[static_cast<std::size_t>(std::clamp(mark.page, 0, static_cast<int>(pages.size()) - 1))];
  const double height = page.getMediaBox().getArrayItem(3).getNumericValue();
  QPDFObjectHandle place = QPDFObjectHandle::newArray();
  place.appendItem(page.getObjectHandle());
  place.appendItem(QPDFObjectHandle::newName("/XYZ"));
  place.appendItem(QPDFObjectHandle::newNull());
  place.appendItem(QPDFObjectHandle::newReal(height * (1.0 - mark.down), 1));
  place.appendItem(QPDFObjectHandle::newNull());
  QPDFObjectHandle out = pdf.makeIndirectObject(QPDFObjectHandle::newDictionary());
  out.replaceKey("/Title", QPDFObjectHandle::newUnicodeString(mark.title.toStdString()));
  out.replaceKey("/Dest", place);
  return out;
}

/// The marks from `at` on that lie deeper than `level`, hung below `parent`; returns where they end.
std::size_t hang(QPDF& pdf, QPDFObjectHandle parent, const std::vector<Bookmark>& marks, std::size_t at,
                 int level, Pages& pages) {
  QPDFObjectHandle before;
  int count = 0;
  while (at < marks.size() && marks[at].level > level) {
    QPDFObjectHandle entry = entryFor(pdf, marks[at], pages);
    entry.replaceKey("/Parent", parent);
    if (count == 0) {
      parent.replaceKey("/First", entry);
    } else {
      before.replaceKey("/Next", entry);
      entry.replaceKey("/Prev", before);
    }
    before = entry;
    ++count;
    at = hang(pdf, entry, marks, at + 1, marks[at].level, pages);
  }
  if (count == 0) return at;
  parent.replaceKey("/Last", before);
  parent.replaceKey("/Count", QPDFObjectHandle::newInteger(level == 0 ? count : -count));  // below 0: closed
  return at;
}

}  // namespace

Result<QByteArray> withBookmarks(const QByteArray& bytes, const std::vector<Bookmark>& bookmarks) {
  if (bookmarks.empty()) return bytes;
  try {
    QPDF pdf;
    pdf.processMemoryFile("report", bytes.constData(), static_cast<std::size_t>(bytes.size()));
    Pages pages = QPDFPageDocumentHelper(pdf).getAllPages();
    QPDFObjectHandle outline = pdf.makeIndirectObject(QPDFObjectHandle::newDictionary());
    outline.replaceKey("/Type", QPDFObjectHandle::newName("/Outlines"));
    hang(pdf, outline, bookmarks, 0, 0, pages);
    pdf.getRoot().replaceKey("/Outlines", outline);
    pdf.getRoot().replaceKey("/PageMode", QPDFObjectHandle::newName("/UseOutlines"));
    QPDFWriter writer(pdf);
    writer.setOutputMemory();
    writer.write();
    const auto written = writer.getBufferSharedPointer();
    return QByteArray(reinterpret_cast<const char*>(written->getBuffer()),
                      static_cast<qsizetype>(written->getSize()));
  } catch (const std::exception& e) {
    return failure(ErrorCode::Broken, std::string("the PDF could not be given its contents: ") + e.what(),
                   "pdf");
  }
}

}  // namespace fin::app
