// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/keys_sheet.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QVBoxLayout>

#include "app/ui/pieces.h"
#include "app/ui/settings.h"

namespace fin::app {
namespace {

constexpr int kWide_px = 640;
constexpr int kHigh_px = 640;
constexpr int kTableRole = Qt::UserRole;
constexpr int kActionRole = Qt::UserRole + 1;

}  // namespace

KeysSheet::KeysSheet(std::vector<const ActionTable*> tables, Run run, QWidget* parent)
    : QFrame(parent),
      tables_(std::move(tables)),
      run_(std::move(run)),
      words_(new QLineEdit),
      list_(new QTreeWidget) {
  setObjectName("keySheet");
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(18, 14, 18, 14);
  layout->addWidget(headingLabel(tr("What you can do, and its keys")));
  words_->setObjectName("keyWords");
  words_->setPlaceholderText(tr("Type a word: nose, clip, beat …"));
  words_->setAccessibleName(tr("Narrow the list"));
  words_->setClearButtonEnabled(true);
  words_->installEventFilter(this);
  layout->addWidget(words_);
  list_->setObjectName("keyList");
  list_->setAccessibleName(tr("What you can do"));
  list_->setColumnCount(2);
  list_->setHeaderHidden(true);
  list_->setRootIsDecorated(false);
  list_->setIndentation(14);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->header()->setStretchLastSection(false);
  list_->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  list_->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  layout->addWidget(list_, 1);
  layout->addWidget(faintLabel(tr("Enter does the chosen one. Esc shuts this sheet.")));
  connect(words_, &QLineEdit::textChanged, this, &KeysSheet::fill);
  connect(words_, &QLineEdit::returnPressed, this, &KeysSheet::doChosen);
  connect(list_, &QTreeWidget::itemActivated, this, &KeysSheet::doChosen);
  fill();
}

QSize KeysSheet::sizeHint() const {
  return {kWide_px * Settings::all().textSize_percent() / 100, kHigh_px};
}

void KeysSheet::fill() {
  const QString wanted = words_->text().trimmed();
  list_->clear();
  QTreeWidgetItem* first = nullptr;
  for (std::size_t t = 0; t < tables_.size(); ++t) {
    const ActionTable& table = *tables_[t];
    const QString why = table.why();
    auto* head = new QTreeWidgetItem({why.isEmpty() ? table.where() : tr("%1 (%2)").arg(table.where(), why)});
    QFont heavy = list_->font();
    heavy.setWeight(QFont::DemiBold);
    head->setFont(0, heavy);
    head->setFlags(Qt::ItemIsEnabled);
    const auto add = [&](const QString& what, const QString& how) -> QTreeWidgetItem* {
      const bool fits =
          what.contains(wanted, Qt::CaseInsensitive) || table.where().contains(wanted, Qt::CaseInsensitive);
      return fits ? new QTreeWidgetItem(head, {what, how}) : nullptr;
    };
    for (std::size_t a = 0; a < table.actions().size(); ++a) {
      const Action& action = table.actions()[a];
      QTreeWidgetItem* row = add(action.what, spokenKeys(action.keys));
      if (row == nullptr) continue;
      row->setData(0, kTableRole, static_cast<int>(t));
      row->setData(0, kActionRole, static_cast<int>(a));
      if (!why.isEmpty()) row->setDisabled(true);
      if (first == nullptr && why.isEmpty()) first = row;
    }
    for (const ActionTable::Told& told : table.told()) {
      if (QTreeWidgetItem* row = add(told.what, told.how)) row->setFlags(Qt::ItemIsEnabled);
    }
    if (head->childCount() == 0) {
      delete head;
      continue;
    }
    list_->addTopLevelItem(head);
    head->setExpanded(true);
  }
  list_->setCurrentItem(first);
}

void KeysSheet::doChosen() {
  const QTreeWidgetItem* row = list_->currentItem();
  if (row == nullptr || row->isDisabled() || !row->data(0, kTableRole).isValid()) return;
  const ActionTable& table = *tables_[row->data(0, kTableRole).toUInt()];
  const Action action = table.actions()[row->data(0, kActionRole).toUInt()];
  run_(table, action);
}

/// Up and down in the words move through the list.
bool KeysSheet::eventFilter(QObject* watched, QEvent* event) {
  if (watched == words_ && event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Up || key == Qt::Key_Down || key == Qt::Key_PageUp || key == Qt::Key_PageDown) {
      QCoreApplication::sendEvent(list_, event);
      return true;
    }
  }
  return QFrame::eventFilter(watched, event);
}

}  // namespace fin::app
