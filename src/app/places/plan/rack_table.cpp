// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/rack_table.h"

#include <algorithm>

#include "app/phrases/words.h"
#include "app/ui/photo.h"
#include "app/ui/settings.h"
#include "core/units/typed_amount.h"

namespace fin::app {

namespace {

UnitSystem units() {
  return Settings::all().units();
}

/// A number out of the rack as it is shown.
QString shownCell(const RackField& field, const std::string& text) {
  const QString plain = QString::fromStdString(text);
  bool isNumber = false;
  const double metric = plain.toDouble(&isNumber);
  if (field.unit.empty() || !isNumber || units() == UnitSystem::Metric) return plain;
  return QString::number(shownUnit(field.unit, units()).shown(metric), 'g', 4);
}

/// What was typed into a cell, as the rack keeps it; what cannot be meant, as it is, for the rack to refuse.
std::string keptCell(const RackField& field, const std::string& text) {
  if (field.unit.empty() || text.empty()) return text;
  const auto metric = typedAmount(text, field.unit, shownUnit(field.unit, units()).unit.toStdString());
  return metric ? QString::number(*metric, 'g', 6).toStdString() : text;
}

}  // namespace

QString columnTitle(const RackField& field) {
  QString name = QString::fromStdString(field.name);
  if (!field.unit.empty())
    name = name.chopped(static_cast<qsizetype>(field.unit.size()) + 1) + ", " +
           shownUnit(field.unit, units()).unit;
  name.replace('_', ' ');
  name[0] = name[0].toUpper();
  return name;
}

RackTable::RackTable(DayController& controller, QObject* parent)
    : QAbstractTableModel(parent),
      controller_(controller),
      rows_(static_cast<int>(controller.plan().rack.rigs.size())) {
  connect(&controller, &DayController::planChanged, this, [this] {
    const int now = static_cast<int>(controller_.plan().rack.rigs.size());
    if (now == rows_) {
      if (now > 0) emit dataChanged(index(0, 0), index(now - 1, columnCount() - 1));
      return;
    }
    beginResetModel();
    rows_ = now;
    endResetModel();
  });
  connect(&Settings::all(), &Settings::unitsChanged, this, [this] {
    emit headerDataChanged(Qt::Horizontal, 0, columnCount() - 1);
    if (rows_ > 0) emit dataChanged(index(0, 0), index(rows_ - 1, columnCount() - 1));
  });
}

int RackTable::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : rows_;
}

int RackTable::columnCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(rackFields().size());
}

QVariant RackTable::data(const QModelIndex& index, int role) const {
  if (role != Qt::DisplayRole && role != Qt::EditRole && role != Qt::DecorationRole) return {};
  const Rack& rack = controller_.plan().rack;
  const Rig& rig = rack.rigs[static_cast<std::size_t>(index.row())];
  const Model* model = rack.model(rig.model);
  const RackField& field = rackFields()[static_cast<std::size_t>(index.column())];
  if (role == Qt::DecorationRole) {
    if (model == nullptr || model->photo.empty() || field.name != "model") return {};
    return photoWithin(QString::fromStdString(model->photo), kThumbnail);
  }
  return shownCell(field, field.get(model == nullptr ? Model{} : *model, rig));
}

QVariant RackTable::headerData(int section, Qt::Orientation orientation, int role) const {
  if (role != Qt::DisplayRole) return {};
  if (orientation == Qt::Vertical) return section + 1;
  return columnTitle(rackFields()[static_cast<std::size_t>(section)]);
}

Qt::ItemFlags RackTable::flags(const QModelIndex& index) const {
  return QAbstractTableModel::flags(index) | Qt::ItemIsEditable;
}

bool RackTable::setData(const QModelIndex& index, const QVariant& value, int role) {
  if (role != Qt::EditRole) return false;
  const RackField& field = rackFields()[static_cast<std::size_t>(index.column())];
  const std::string kept = keptCell(field, value.toString().trimmed().toStdString());
  // A rounded number that nobody touched stays as exact as it was kept.
  if (value.toString() == data(index, Qt::EditRole).toString()) return true;
  Result<void> done;
  controller_.edit(tr("Change the rack"), [&](DayPlan& plan) {
    Rig& rig = plan.rack.rigs[static_cast<std::size_t>(index.row())];
    const auto model = std::find_if(plan.rack.models.begin(), plan.rack.models.end(),
                                    [&](const Model& m) { return m.id == rig.model; });
    if (model == plan.rack.models.end()) return;
    done = field.set(*model, rig, kept);
    model->graded = model->whyNotGraded.empty();
  });
  if (!done) emit refused(QString::fromStdString(done.error().message));
  return done.has_value();
}

RigId RackTable::rigAt(int row) const {
  const auto& rigs = controller_.plan().rack.rigs;
  return row < 0 || row >= static_cast<int>(rigs.size()) ? 0 : rigs[static_cast<std::size_t>(row)].id;
}

int RackTable::rowOf(RigId rig) const {
  const auto& rigs = controller_.plan().rack.rigs;
  const auto found = std::find_if(rigs.begin(), rigs.end(), [rig](const Rig& r) { return r.id == rig; });
  return found == rigs.end() ? -1 : static_cast<int>(found - rigs.begin());
}

void RackTable::addModel() {
  controller_.edit(tr("Add a model"), [](DayPlan& plan) {
    const std::int64_t id = plan.rack.nextId();
    plan.rack.models.push_back({.id = id, .name = tr("New model").toStdString()});
    plan.rack.rigs.push_back({.id = id + 1, .model = id});
  });
}

void RackTable::addRig(RigId like) {
  controller_.edit(tr("Add a rig"), [like](DayPlan& plan) {
    const Rig* pattern = plan.rack.rig(like);
    if (pattern == nullptr) return;
    Rig rig = *pattern;
    rig.id = plan.rack.nextId();
    rig.name = tr("another rig").toStdString();
    const auto at = std::find_if(plan.rack.rigs.begin(), plan.rack.rigs.end(),
                                 [like](const Rig& r) { return r.id == like; });
    plan.rack.rigs.insert(at + 1, rig);
  });
}

void RackTable::remove(RigId rig) {
  controller_.edit(tr("Remove a rig from the rack"), [rig](DayPlan& plan) {
    const Rig* gone = plan.rack.rig(rig);
    if (gone == nullptr) return;
    const ModelId model = gone->model;
    std::erase_if(plan.rack.rigs, [rig](const Rig& r) { return r.id == rig; });
    const bool still = std::any_of(plan.rack.rigs.begin(), plan.rack.rigs.end(),
                                   [model](const Rig& r) { return r.model == model; });
    if (!still) std::erase_if(plan.rack.models, [model](const Model& m) { return m.id == model; });
  });
}

}  // namespace fin::app
