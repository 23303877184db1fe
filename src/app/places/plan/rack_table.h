// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAbstractTableModel>
#include <QSize>

#include "app/controllers/day_controller.h"
#include "core/planning/rack_fields.h"

namespace fin::app {

/// A model's photo in the table.
constexpr QSize kThumbnail{36, 22};

/// The rack as a table: a row per rig, a column per field, each cell to be edited in place.
class RackTable : public QAbstractTableModel {
  Q_OBJECT

 public:
  explicit RackTable(DayController& controller, QObject* parent = nullptr);

  [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
  [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
  [[nodiscard]] Qt::ItemFlags flags(const QModelIndex& index) const override;
  bool setData(const QModelIndex& index, const QVariant& value, int role) override;

  [[nodiscard]] RigId rigAt(int row) const;
  [[nodiscard]] int rowOf(RigId rig) const;
  void addModel();
  void addRig(RigId like);
  void remove(RigId rig);

 signals:
  void refused(const QString& why);

 private:
  DayController& controller_;
  int rows_ = 0;
};

/// "Head, g" from "head_g".
QString columnTitle(const RackField& field);

}  // namespace fin::app
