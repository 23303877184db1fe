// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/row_table.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"

namespace fin::app {

RowTable::RowTable(const QStringList& heads, const char* name, const QString& addText, const QString& about,
                   int firstWritten, QWidget* parent)
    : QWidget(parent),
      firstWritten_(firstWritten),
      table_(new QTableWidget),
      add_(namedButton(addText, "")),
      remove_(namedButton(tr("Remove"), "")),
      about_(faintLabel(about)),
      text_(about) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  table_->setObjectName(name);
  table_->setAccessibleName(about);
  add_->setObjectName(QString("add_%1").arg(name));
  remove_->setObjectName(QString("remove_%1").arg(name));
  TableHeads::keepWhole(*table_);
  table_->setColumnCount(static_cast<int>(heads.size()));
  table_->setHorizontalHeaderLabels(heads);
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  table_->verticalHeader()->hide();
  table_->setTabKeyNavigation(false);
  layout->addWidget(table_, 1);
  auto* row = new QHBoxLayout;
  row->addWidget(add_);
  row->addWidget(remove_);
  row->addWidget(about_, 1);
  layout->addLayout(row);
  connect(table_, &QTableWidget::cellChanged, this,
          [this](int r, int column) { emit typed(r, column, table_->item(r, column)->text().trimmed()); });
  connect(add_, &QPushButton::clicked, this, [this] {
    emit addWanted();
    table_->setCurrentCell(table_->rowCount() - 1, firstWritten_);
    table_->setFocus();
  });
  connect(remove_, &QPushButton::clicked, this, [this] {
    if (chosen() >= 0) emit removeWanted(chosen());
  });
  show({});
}

void RowTable::show(const std::vector<QStringList>& rows) {
  const QSignalBlocker quiet(table_);
  const int before = table_->currentRow();
  const int column = std::max(table_->currentColumn(), firstWritten_);
  table_->setRowCount(static_cast<int>(rows.size()));
  for (int r = 0; r < table_->rowCount(); ++r) {
    const QStringList& row = rows[static_cast<std::size_t>(r)];
    for (int c = 0; c < table_->columnCount(); ++c)
      table_->setItem(r, c, c < firstWritten_ ? readOnlyCell(row[c]) : new QTableWidgetItem(row[c]));
  }
  if (table_->rowCount() > 0) table_->setCurrentCell(std::clamp(before, 0, table_->rowCount() - 1), column);
  enableOr(*remove_, table_->rowCount() > 0, tr("There is nothing to remove."));
}

void RowTable::say(const QString& trouble) {
  about_->setText(trouble.isEmpty() ? text_ : trouble);
  setLook(*about_, "trouble", !trouble.isEmpty());
}

}  // namespace fin::app
