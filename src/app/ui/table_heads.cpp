// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/table_heads.h"

#include <QEvent>
#include <QHeaderView>

namespace fin::app {
namespace {

constexpr int kBesideText_px = 10;

}  // namespace

TableHeads::TableHeads(QTableView& table) : QObject(&table), table_(table) {
  table.horizontalHeader()->installEventFilter(this);
  connect(table.model(), &QAbstractItemModel::headerDataChanged, this, &TableHeads::widen);
  connect(table.model(), &QAbstractItemModel::columnsInserted, this, &TableHeads::widen);
}

bool TableHeads::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Show || event->type() == QEvent::FontChange ||
      event->type() == QEvent::StyleChange)
    widen();
  return QObject::eventFilter(watched, event);
}

void TableHeads::widen() {
  QHeaderView& heads = *table_.horizontalHeader();
  QFont font = heads.font();
  font.setWeight(QFont::DemiBold);
  const QFontMetrics metrics(font);
  for (int i = 0; i < heads.count(); ++i) {
    const QString text = table_.model()->headerData(i, Qt::Horizontal).toString();
    const int needed = metrics.size(0, text).width() + kBesideText_px;
    if (!heads.isSectionHidden(i) && heads.sectionSize(i) < needed) heads.resizeSection(i, needed);
  }
}

}  // namespace fin::app
