// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/pass_picker.h"

#include <QSignalBlocker>
#include <algorithm>

namespace fin::app {

constexpr int kPassRole = Qt::UserRole;

PassPicker::PassPicker(const LineUp& lineUp, StudiedPasses& studied, QWidget* parent)
    : QListWidget(parent), lineUp_(lineUp), studied_(studied) {
  setObjectName("passPicker");
  setAccessibleName(tr("Passes to see beside each other; Space ticks one"));
  setFixedWidth(262);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(this, &QListWidget::itemChanged, this, &PassPicker::take);
  connect(&lineUp, &LineUp::changed, this, &PassPicker::refresh);
  connect(&studied, &StudiedPasses::changed, this, &PassPicker::refresh);
  refresh();
}

void PassPicker::refresh() {
  const QSignalBlocker quiet(this);
  const int row = currentRow();
  clear();
  const std::vector<PassId>& wanted = studied_.wanted();
  for (const ComparedPass& pass : lineUp_.passes()) {
    auto* item = new QListWidgetItem(QString::fromStdString(pass.title), this);
    item->setData(kPassRole, QVariant::fromValue<qlonglong>(pass.id.value()));
    const bool ticked = std::find(wanted.begin(), wanted.end(), pass.id) != wanted.end();
    const bool room = ticked || wanted.size() < kMost;
    item->setFlags(room ? Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable
                        : Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
    item->setCheckState(ticked ? Qt::Checked : Qt::Unchecked);
    item->setToolTip(QString::fromStdString(pass.title));
    if (!room) item->setToolTip(tr("Six are seen together at most; untick one first."));
  }
  setCurrentRow(row);
}

/// Those that were ticked before keep their order; a new one comes last.
void PassPicker::take() {
  std::vector<PassId> ticked;
  for (int row = 0; row < count(); ++row) {
    if (item(row)->checkState() == Qt::Checked) ticked.push_back(item(row)->data(kPassRole).toLongLong());
  }
  std::vector<PassId> order;
  for (const PassId id : studied_.wanted()) {
    if (std::find(ticked.begin(), ticked.end(), id) != ticked.end()) order.push_back(id);
  }
  for (const PassId id : ticked) {
    if (std::find(order.begin(), order.end(), id) == order.end()) order.push_back(id);
  }
  studied_.want(order);
}

}  // namespace fin::app
