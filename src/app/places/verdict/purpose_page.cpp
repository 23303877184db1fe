// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/purpose_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/phrases/verdict_words.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"

namespace fin::app {
namespace {

QTableWidget* listTable(const char* name, const QStringList& heads) {
  auto* table = new QTableWidget;
  TableHeads::keepWhole(*table);
  table->setObjectName(name);
  table->setColumnCount(static_cast<int>(heads.size()));
  table->setHorizontalHeaderLabels(heads);
  table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table->horizontalHeader()->setStretchLastSection(true);
  table->verticalHeader()->hide();
  table->verticalHeader()->setMinimumSectionSize(30);
  table->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  table->setSelectionBehavior(QAbstractItemView::SelectRows);
  table->setSelectionMode(QAbstractItemView::SingleSelection);
  table->setTabKeyNavigation(false);
  return table;
}

}  // namespace

PurposePage::PurposePage(VerdictController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      purposes_(listTable("purposes", {tr("For"), tr("Take"), tr("Chance"), tr("Because of")})),
      name_(new QLineEdit),
      wishes_(new WishEditor(controller.lineUp(), true)),
      remove_(namedButton(tr("Remove purpose"), "removePurpose")),
      heading_(headingLabel({})),
      picks_(listTable("picks", {tr("Place"), tr("Rig"), tr("Points"), tr("Chance"), tr("Because of")})),
      words_(faintLabel({})) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  layout->addWidget(buildLeft());
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  purposes_->setAccessibleName(tr("The best for each purpose"));
  for (QTableWidget* table : {purposes_, picks_})
    table->setToolTip(tr("Chance: of being the best, as far as the measuring tells."));
  purposes_->setColumnWidth(0, 200);
  purposes_->setColumnWidth(1, 210);
  purposes_->setColumnWidth(2, 70);
  right->addWidget(purposes_, 7);
  heading_->setObjectName("pickHeading");
  right->addWidget(heading_);
  picks_->setAccessibleName(tr("All rigs for the chosen purpose"));
  picks_->setColumnWidth(0, 50);
  picks_->setColumnWidth(1, 210);
  picks_->setColumnWidth(2, 80);
  picks_->setColumnWidth(3, 70);
  right->addWidget(picks_, 4);
  words_->setObjectName("purposeWords");
  right->addWidget(words_);
  layout->addLayout(right, 1);
  connect(purposes_, &QTableWidget::itemSelectionChanged, this, &PurposePage::showChosen);
  connect(&controller, &VerdictController::changed, this, &PurposePage::refresh);
  connect(&controller.rankings(), &Rankings::ready, this, &PurposePage::refresh);
}

QWidget* PurposePage::buildLeft() {
  auto* box = new QWidget;
  keepColumn(*box, kChoicesWidth_px);
  auto* left = new QVBoxLayout(box);
  left->setContentsMargins(0, 0, 0, 0);
  left->addWidget(headingLabel(tr("What matters for")));
  name_->setObjectName("purposeName");
  name_->setAccessibleName(tr("Name of the purpose"));
  left->addWidget(name_);
  left->addWidget(wishes_, 1);
  auto* row = new QHBoxLayout;
  auto* add = namedButton(tr("New purpose"), "addPurpose");
  row->addWidget(add);
  row->addWidget(remove_);
  left->addLayout(row);
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    editChosen(tr("Name the purpose"),
               [this](Purpose& p) { p.name = name_->text().trimmed().toStdString(); });
  });
  connect(wishes_, &WishEditor::edited, this, [this](const QString& what, const std::vector<Wish>& wishes) {
    editChosen(what, [&](Purpose& p) { p.wishes = wishes; });
  });
  connect(add, &QPushButton::clicked, this, [this] {
    controller_.edit(tr("New purpose"), [](VerdictPlan& plan) {
      plan.purposes.push_back({"My purpose", {}});
    });
    purposes_->selectRow(purposes_->rowCount() - 1);
    beginNaming(*name_);
  });
  connect(remove_, &QPushButton::clicked, this, [this] {
    const int chosen = purposes_->currentRow();
    if (chosen < 0) return;
    controller_.edit(tr("Remove the purpose"),
                     [chosen](VerdictPlan& plan) { plan.purposes.erase(plan.purposes.begin() + chosen); });
  });
  return box;
}

void PurposePage::setUnits(UnitSystem units) {
  units_ = units;
  wishes_->setUnits(units);
  refresh();
}

void PurposePage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void PurposePage::refresh() {
  if (!isVisible()) return;
  const std::vector<Purpose>& purposes = controller_.plan().purposes;
  {
    const QSignalBlocker quiet(purposes_);
    const int before = std::max(0, purposes_->currentRow());
    purposes_->setRowCount(static_cast<int>(purposes.size()));
    for (int row = 0; row < purposes_->rowCount(); ++row) {
      const Purpose& purpose = purposes[static_cast<std::size_t>(row)];
      const ScoreTable table = controller_.tableBy(purpose.wishes);
      const Ranking* ranking = controller_.rankings().of(table, purposeOptions());
      const bool any = ranking != nullptr && !ranking->placings.empty();
      QStringList cells{QString::fromStdString(purpose.name), tr("nothing yet"), {}, {}};
      if (ranking == nullptr) {
        cells[1] = "…";
      } else if (!any) {
        cells[3] = whyNoPick(table, *ranking);
      } else {
        const Placing& first = ranking->placings.front();
        cells[1] = QString::fromStdString(table.entries[first.entry].rig);
        cells[2] = chanceInWords(table, first);
        cells[3] = reasonInWords(table, first, units_);
        if (const QString passed = passedInWords(table, *ranking); !passed.isEmpty())
          cells[3] += ". " + passed;
      }
      for (int c = 0; c < purposes_->columnCount(); ++c) purposes_->setItem(row, c, readOnlyCell(cells[c]));
      QFont bold = purposes_->font();
      bold.setWeight(QFont::DemiBold);
      if (any) purposes_->item(row, 1)->setFont(bold);
    }
    purposes_->selectRow(std::min(before, purposes_->rowCount() - 1));
  }
  showChosen();
}

void PurposePage::showChosen() {
  const int row = purposes_->currentRow();
  const bool any = row >= 0 && row < static_cast<int>(controller_.plan().purposes.size());
  for (QWidget* w :
       {static_cast<QWidget*>(name_), static_cast<QWidget*>(wishes_), static_cast<QWidget*>(remove_)})
    enableOr(*w, any, tr("Add or choose a purpose first."));
  const Purpose purpose = any ? controller_.plan().purposes[static_cast<std::size_t>(row)] : Purpose{};
  name_->setText(QString::fromStdString(purpose.name));
  wishes_->show(purpose.wishes, controller_.plan().judgements);
  showPicks(purpose);
}

void PurposePage::showPicks(const Purpose& purpose) {
  const ScoreTable table = controller_.tableBy(purpose.wishes);
  const Ranking* found = controller_.rankings().of(table, purposeOptions());
  if (found == nullptr) return;
  const Ranking& ranking = *found;
  heading_->setText(purpose.name.empty() ? QString()
                                         : tr("%1, all rigs").arg(QString::fromStdString(purpose.name)));
  picks_->setRowCount(static_cast<int>(ranking.placings.size()));
  int row = 0;
  for (const Placing& p : ranking.placings) {
    const QString cells[] = {plainNumber(p.place, 1), QString::fromStdString(table.entries[p.entry].rig),
                             p.most > p.total
                                 ? tr("%1 to %2").arg(plainNumber(p.total, 1), plainNumber(p.most, 1))
                                 : plainNumber(p.total, 1),
                             chanceInWords(table, p), reasonInWords(table, p, units_)};
    int column = 0;
    for (const QString& text : cells) picks_->setItem(row, column++, readOnlyCell(text));
    ++row;
  }
  QStringList lines = leftInWords(table, ranking);
  if (ranking.placings.empty()) lines.prepend(firstInWords(table, ranking) + ".");
  words_->setText(lines.join("\n"));
}

void PurposePage::editChosen(const QString& what, const std::function<void(Purpose&)>& change) {
  const int row = purposes_->currentRow();
  if (row < 0) return;
  controller_.edit(what, [&](VerdictPlan& plan) { change(plan.purposes[static_cast<std::size_t>(row)]); });
}

}  // namespace fin::app
