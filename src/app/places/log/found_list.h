// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAbstractListModel>
#include <QListView>

#include "core/season/finding_words.h"

namespace fin::app {

/// What was found, by kind and what it is called. Rows are made as they are seen.
class FoundModel : public QAbstractListModel {
  Q_OBJECT

 public:
  using QAbstractListModel::QAbstractListModel;
  void show(const std::vector<Findable>* all, std::vector<std::size_t> found);
  [[nodiscard]] const Findable* at(const QModelIndex& index) const;
  /// The row of this thing; none where it was not found.
  [[nodiscard]] QModelIndex rowOf(Findable::Kind kind, std::int64_t id) const;

  [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
  [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;

 private:
  const std::vector<Findable>* all_ = nullptr;
  std::vector<std::size_t> found_;
};

}  // namespace fin::app
