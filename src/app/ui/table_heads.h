// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QTableView>

namespace fin::app {

/// Columns of a table stay wide enough for their heads, whatever the size of the text.
class TableHeads : public QObject {
  Q_OBJECT

 public:
  static void keepWhole(QTableView& table) { new TableHeads(table); }
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  explicit TableHeads(QTableView& table);
  void widen();

  QTableView& table_;
};

}  // namespace fin::app
