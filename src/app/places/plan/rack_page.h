// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QStackedWidget>
#include <QTableView>
#include <vector>

#include "app/places/plan/rack_details.h"
#include "app/places/plan/rack_table.h"
#include "core/exchange/rack_csv.h"

namespace fin::app {

/// Models and rigs: a table to see them all, all that is known of one beside it, and import with a preview.
class RackPage : public QWidget {
  Q_OBJECT

 public:
  explicit RackPage(DayController& controller, QWidget* parent = nullptr);
  /// Reads a table and shows what it would bring; nothing is added before the person says so.
  void previewImport(const QString& file);

 private:
  QWidget* buildTable();
  QWidget* buildImport();
  void showPreview();
  void takeImport();
  void exportRack();
  void say(const QString& trouble);
  [[nodiscard]] ColumnMap chosenColumns() const;

  DayController& controller_;
  RackTable* model_;
  QTableView* table_;
  QStackedWidget* stack_;
  QLabel* message_;
  RackDetails* details_;
  CsvTable read_;
  QWidget* columnsArea_ = nullptr;
  std::vector<std::pair<std::string, QComboBox*>> columns_;
  QLabel* preview_;
};

}  // namespace fin::app
