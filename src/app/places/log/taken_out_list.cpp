// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/taken_out_list.h"

#include <QVBoxLayout>

#include "app/phrases/row_words.h"
#include "app/phrases/words.h"
#include "app/ui/pieces.h"

namespace fin::app {

TakenOutList::TakenOutList(std::filesystem::path log, QWidget* parent)
    : QWidget(parent),
      log_(std::move(log)),
      list_(new QListWidget),
      back_(namedButton(tr("Bring it back"), "bringBack")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("Taken out")));
  list_->setObjectName("takenOut");
  list_->setAccessibleName(tr("What was taken out of the log"));
  list_->setUniformItemSizes(true);
  layout->addWidget(list_, 1);
  auto* row = new QHBoxLayout;
  row->addWidget(back_);
  row->addStretch();
  layout->addLayout(row);
  connect(back_, &QPushButton::clicked, this, &TakenOutList::bringBack);
  connect(list_, &QListWidget::itemActivated, this, &TakenOutList::bringBack);
}

void TakenOutList::refresh() {
  auto rows = takenOut(log_);
  rows_ = rows ? std::move(*rows) : std::vector<TakenOut>();
  if (!rows) emit told(QString::fromStdString(rows.error().message), true);
  list_->clear();
  for (const TakenOut& row : rows_) {
    QString text = QString("%1 %2").arg(rowKind(row.kind), QString::fromStdString(row.name));
    if (row.edited_s > 0.0) text += QString("  (%1)").arg(spokenMoment(row.edited_s));
    list_->addItem(text);
  }
  setVisible(!rows_.empty());
  if (!rows_.empty()) list_->setCurrentRow(0);
}

void TakenOutList::bringBack() {
  const int row = list_->currentRow();
  if (row < 0) return;
  const auto done = fin::bringBack(log_, rows_[static_cast<std::size_t>(row)]);
  if (!done) emit told(QString::fromStdString(done.error().message), true);
  emit broughtBack();
}

}  // namespace fin::app
