// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QByteArray>
#include <QString>
#include <vector>

#include "core/units/result.h"

namespace fin::app {

/// A heading of a document: where a reader's list of contents leads.
struct Bookmark {
  QString title;
  int level = 1;      ///< 1 outermost
  int page = 0;       ///< counted from 0
  double down = 0.0;  ///< share of the page's height from its top
};

/// The same PDF with an outline; an unopened one has only the outermost. Errors: Broken where the PDF cannot
/// be read.
Result<QByteArray> withBookmarks(const QByteArray& pdf, const std::vector<Bookmark>& bookmarks);

}  // namespace fin::app
