// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/controllers/log_book.h"
#include "app/places/log/row_table.h"

namespace fin::app {

/// "2 May 2027"; says so where there is no date.
QString dayMonthYear(const std::string& date);

/// What is claimed of a model, written in place, and whether that was kept so far.
class ClaimsTable : public RowTable {
  Q_OBJECT

 public:
  /// Both must outlive it; `record` is the model's that is shown.
  ClaimsTable(LogBook& book, const LogBook::ModelRecord& record, QWidget* parent = nullptr);
  void showModel(ModelId model, UnitSystem units);

 private:
  void keep(int row, int column, const QString& text);
  /// The rig by which a reading was read last; null where nobody read it.
  [[nodiscard]] const RigHistory* latestOf(ReadingId reading) const;

  LogBook& book_;
  const LogBook::ModelRecord& record_;
  ModelId model_;
  UnitSystem units_ = UnitSystem::Metric;
  std::vector<ClaimId> rows_;
};

/// The very lures of a model: used, spare, worn, lost.
class PiecesTable : public RowTable {
  Q_OBJECT

 public:
  explicit PiecesTable(LogBook& book, QWidget* parent = nullptr);
  void showModel(ModelId model);

 private:
  void keep(int row, int column, const QString& text);

  LogBook& book_;
  ModelId model_;
  std::vector<PieceId> rows_;
};

/// What shops asked for a model, and when.
class PricesTable : public RowTable {
  Q_OBJECT

 public:
  explicit PricesTable(LogBook& book, QWidget* parent = nullptr);
  void showModel(ModelId model);

 private:
  void keep(int row, int column, const QString& text);

  LogBook& book_;
  ModelId model_;
  std::vector<PriceId> rows_;
};

}  // namespace fin::app
