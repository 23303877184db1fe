// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace fin::app {

/// Rows of one kind, written into in place: a cell that cannot be meant says why below and goes back.
class RowTable : public QWidget {
  Q_OBJECT

 public:
  /// `name` is the table's; columns from `firstWritten` on can be written in.
  RowTable(const QStringList& heads, const char* name, const QString& addText, const QString& about,
           int firstWritten = 0, QWidget* parent = nullptr);
  void show(const std::vector<QStringList>& rows);
  /// Why what was typed last was not kept; empty for good.
  void say(const QString& trouble);
  [[nodiscard]] int chosen() const { return table_->currentRow(); }

 signals:
  void typed(int row, int column, const QString& text);
  void addWanted();
  void removeWanted(int row);

 private:
  int firstWritten_;
  QTableWidget* table_;
  QPushButton* add_;
  QPushButton* remove_;
  QLabel* about_;
  QString text_;
};

}  // namespace fin::app
