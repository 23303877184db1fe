// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/found_list.h"

namespace fin::app {
namespace {

QString kindOf(Findable::Kind kind) {
  switch (kind) {
    case Findable::Kind::Model:
      return QObject::tr("Model");
    case Findable::Kind::Rig:
      return QObject::tr("Rig");
    case Findable::Kind::Day:
      return QObject::tr("Day");
    case Findable::Kind::Water:
      return QObject::tr("Water");
    case Findable::Kind::Pass:
      return QObject::tr("Pass");
  }
  return {};
}

}  // namespace

void FoundModel::show(const std::vector<Findable>* all, std::vector<std::size_t> found) {
  beginResetModel();
  all_ = all;
  found_ = std::move(found);
  endResetModel();
}

const Findable* FoundModel::at(const QModelIndex& index) const {
  if (!index.isValid() || index.row() >= rowCount()) return nullptr;
  return &(*all_)[found_[static_cast<std::size_t>(index.row())]];
}

QModelIndex FoundModel::rowOf(Findable::Kind kind, std::int64_t id) const {
  for (std::size_t row = 0; row < found_.size(); ++row) {
    const Findable& one = (*all_)[found_[row]];
    if (one.kind == kind && one.id == id) return index(static_cast<int>(row));
  }
  return {};
}

int FoundModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(found_.size());
}

QVariant FoundModel::data(const QModelIndex& index, int role) const {
  const Findable* one = at(index);
  if (one == nullptr || role != Qt::DisplayRole) return {};
  return QString("%1:  %2").arg(kindOf(one->kind), QString::fromStdString(one->text));
}

}  // namespace fin::app
