// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/run_list.h"

#include <QFileInfo>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMimeData>

#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kPlannedRole = Qt::UserRole;     ///< of a pass's row
constexpr int kLoggedRole = Qt::UserRole + 1;  ///< of a clip's row

}  // namespace

RunList::RunList(DayController& day, PassController& passes, IncomingClips& incoming, QWidget* parent)
    : QTreeWidget(parent), day_(day), passes_(passes), incoming_(incoming) {
  setObjectName("runList");
  setAccessibleName(tr("Passes of the day and their clips"));
  setColumnCount(3);
  setHeaderLabels({tr("Rig"), tr("Pass"), tr("How it went")});
  setColumnWidth(0, 205);
  setColumnWidth(1, 245);
  setDragDropMode(DragDrop);
  setDragEnabled(true);
  setAcceptDrops(true);
  setSelectionMode(SingleSelection);
  connect(&day, &DayController::planChanged, this, &RunList::refresh);
  connect(&passes, &PassController::passesChanged, this, &RunList::refresh);
  refresh();
}

QTreeWidgetItem* RunList::itemOf(PlannedPassId planned) const {
  for (int i = 0; i < topLevelItemCount(); ++i) {
    if (topLevelItem(i)->data(0, kPlannedRole).toLongLong() == planned) return topLevelItem(i);
  }
  return nullptr;
}

void RunList::refresh() {
  const QVariant kept = currentItem() == nullptr ? QVariant() : currentItem()->data(0, kLoggedRole);
  clear();
  const PlannedPass* now = day_.now();
  QTreeWidgetItem* nowItem = nullptr;
  for (const PlannedPass& p : day_.plan().sheet) {
    auto* item =
        new QTreeWidgetItem(this, {day_.titleOf(p), day_.taskOf(p), &p == now ? tr("now") : spokenState(p)});
    item->setData(0, kPlannedRole, QVariant::fromValue<qlonglong>(p.id.value()));
    item->setFlags((item->flags() | Qt::ItemIsDropEnabled) & ~Qt::ItemIsDragEnabled);
    if (p.state != PassState::Planned) {
      for (int c = 0; c < 3; ++c) item->setForeground(c, theme().faint);
    }
    if (&p == now) {
      nowItem = item;
      for (int c = 0; c < 3; ++c) item->setForeground(c, theme().accent);
    }
  }
  QTreeWidgetItem* again = nullptr;
  for (const LoggedPass& clip : passes_.passes()) {
    QTreeWidgetItem* parent = clip.planned ? itemOf(*clip.planned) : nullptr;
    if (parent == nullptr) continue;
    const QString file = QFileInfo(QString::fromStdString(clip.request.clip.string())).fileName();
    auto* item = new QTreeWidgetItem(parent, {tr("clip %1").arg(file), QString::fromStdString(clip.camera)});
    item->setData(0, kLoggedRole, QVariant::fromValue<qlonglong>(clip.id.value()));
    item->setFlags((item->flags() | Qt::ItemIsDragEnabled) & ~Qt::ItemIsDropEnabled);
    parent->setExpanded(true);
    if (kept.isValid() && kept.toLongLong() == clip.id) again = item;
  }
  if (again != nullptr) {
    setCurrentItem(again);
  } else if (nowItem != nullptr) {
    // Not before the rows have their places.
    QMetaObject::invokeMethod(
        this,
        [this, id = nowItem->data(0, kPlannedRole).toLongLong()] {
          if (QTreeWidgetItem* at = itemOf(id)) scrollToItem(at, PositionAtCenter);
        },
        Qt::QueuedConnection);
  }
}

QMimeData* RunList::mimeData(const QList<QTreeWidgetItem*>& items) const {
  auto* carried = new QMimeData;
  if (!items.isEmpty() && items.front()->data(0, kLoggedRole).isValid()) {
    carried->setData(mimeType(),
                     "logged:" + QByteArray::number(items.front()->data(0, kLoggedRole).toLongLong()));
  }
  return carried;
}

bool RunList::dropMimeData(QTreeWidgetItem* parent, int, const QMimeData* dropped, Qt::DropAction) {
  if (parent == nullptr) return false;
  if (parent->parent() != nullptr) parent = parent->parent();
  const PlannedPassId planned = parent->data(0, kPlannedRole).toLongLong();
  const QByteArray what = dropped->data(mimeType());
  // The tree is built anew by what follows; that must wait until the drop is over.
  if (what.startsWith("logged:")) {
    const PassId id = what.mid(7).toLongLong();
    for (const LoggedPass& clip : passes_.passes()) {
      if (clip.id != id) continue;
      QMetaObject::invokeMethod(
          this, [this, id, planned, camera = clip.camera] { passes_.assign(id, planned, camera); },
          Qt::QueuedConnection);
      return true;
    }
  }
  if (what.startsWith("waiting:")) {
    const QString file = QString::fromUtf8(what.mid(8));
    QMetaObject::invokeMethod(
        this, [this, file, planned] { incoming_.take(file, planned, "fixed"); }, Qt::QueuedConnection);
    return true;
  }
  return false;
}

/// Rows are coloured as they are written.
void RunList::changeEvent(QEvent* event) {
  QTreeWidget::changeEvent(event);
  if (event->type() == QEvent::StyleChange) refresh();
}

void RunList::keyPressEvent(QKeyEvent* event) {
  const bool up = event->key() == Qt::Key_Up;
  const bool move = event->modifiers().testFlag(Qt::AltModifier) && (up || event->key() == Qt::Key_Down);
  QTreeWidgetItem* clip = currentItem();
  if (!move || clip == nullptr || clip->parent() == nullptr) {
    // The number keys belong to the pass that is being made.
    if (event->key() >= Qt::Key_1 && event->key() <= Qt::Key_6) return event->ignore();
    return QTreeWidget::keyPressEvent(event);
  }
  const int to = indexOfTopLevelItem(clip->parent()) + (up ? -1 : 1);
  if (to < 0 || to >= topLevelItemCount()) return;
  passes_.assign(clip->data(0, kLoggedRole).toLongLong(),
                 topLevelItem(to)->data(0, kPlannedRole).toLongLong(), clip->text(1).toStdString());
}

}  // namespace fin::app
