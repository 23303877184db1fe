// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/rack_page.h"

#include <QFile>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/print/writing.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "app/ui/table_heads.h"

namespace fin::app {
namespace {

// What is seen at a glance; the rest stands beside the table.
constexpr const char* kShownColumns[] = {"model",    "rig",    "family", "length_mm",
                                         "weight_g", "head_g", "hook_g"};
constexpr std::size_t kBadLinesShown = 12;
constexpr std::int64_t kLargestTable_bytes = 64 << 20;

}  // namespace

RackPage::RackPage(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      model_(new RackTable(controller, this)),
      table_(new QTableView),
      stack_(new QStackedWidget),
      message_(new QLabel),
      details_(new RackDetails(controller, *model_)),
      preview_(new QLabel) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  message_->setObjectName("rackMessage");
  message_->setProperty("trouble", true);
  message_->setWordWrap(true);
  message_->hide();
  layout->addWidget(message_);
  stack_->addWidget(buildTable());
  stack_->addWidget(buildImport());
  layout->addWidget(stack_, 1);
  if (QWidget* lines = cautionLines(Step::Rack)) layout->addWidget(lines);
  connect(model_, &RackTable::refused, this, &RackPage::say);
  connect(&controller, &DayController::planChanged, message_, &QLabel::hide);
}

QWidget* RackPage::buildTable() {
  auto* page = new QWidget;
  auto* layout = new QHBoxLayout(page);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  auto* left = new QVBoxLayout;
  auto* row = new QHBoxLayout;
  const auto button = [&](const QString& text, const char* name, auto&& what) {
    auto* b = namedButton(text, name);
    connect(b, &QPushButton::clicked, this, what);
    row->addWidget(b);
  };
  const auto chosen = [this] { return model_->rigAt(table_->currentIndex().row()); };
  button(tr("Add a model"), "addModel", [this] {
    model_->addModel();
    table_->selectRow(model_->rowCount() - 1);
    details_->beginNamingModel();
  });
  button(tr("Add a rig of it"), "addRig", [this, chosen] {
    const int at = table_->currentIndex().row();
    model_->addRig(chosen());
    table_->selectRow(at + 1);
    details_->beginNamingRig();
  });
  button(tr("Remove"), "removeRig", [this, chosen] { model_->remove(chosen()); });
  row->addStretch();
  button(tr("Import a table …"), "importRack", [this] {
    const QString file = askForFile(this, tr("Import a table"), tr("Tables (*.csv *.txt *.tsv)"));
    if (!file.isEmpty()) previewImport(file);
  });
  button(tr("Export …"), "exportRack", [this] { exportRack(); });
  left->addLayout(row);
  table_->setModel(model_);
  TableHeads::keepWhole(*table_);
  table_->setObjectName("rack");
  table_->setAccessibleName(tr("Models and rigs"));
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setTabKeyNavigation(false);
  table_->verticalHeader()->hide();
  table_->horizontalHeader()->setStretchLastSection(true);
  for (std::size_t i = 0; i < rackFields().size(); ++i) {
    const auto at = std::find(std::begin(kShownColumns), std::end(kShownColumns), rackFields()[i].name);
    table_->setColumnHidden(static_cast<int>(i), at == std::end(kShownColumns));
  }
  // The rig stands beside its model.
  table_->horizontalHeader()->moveSection(
      static_cast<int>(std::find_if(rackFields().begin(), rackFields().end(),
                                    [](const RackField& f) { return f.name == "rig"; }) -
                       rackFields().begin()),
      1);
  table_->setIconSize(kThumbnail);
  table_->horizontalHeader()->setDefaultSectionSize(77);
  table_->setColumnWidth(0, 116);
  for (std::size_t i = 0; i < rackFields().size(); ++i) {
    if (rackFields()[i].name == "rig") table_->setColumnWidth(static_cast<int>(i), 108);
    if (rackFields()[i].name == "length_mm") table_->setColumnWidth(static_cast<int>(i), 96);
    if (rackFields()[i].name == "family") table_->setColumnWidth(static_cast<int>(i), 88);
  }
  left->addWidget(table_, 1);
  layout->addLayout(left, 1);
  layout->addWidget(details_);
  connect(table_->selectionModel(), &QItemSelectionModel::currentChanged, details_,
          [this](const QModelIndex& at) { details_->showRow(at.row()); });
  connect(details_, &RackDetails::refused, this, &RackPage::say);
  const auto showOne = [this] {
    if (!table_->currentIndex().isValid() && model_->rowCount() > 0) table_->selectRow(0);
  };
  connect(model_, &QAbstractItemModel::modelReset, this, showOne);
  showOne();
  return page;
}

QWidget* RackPage::buildImport() {
  auto* page = new QWidget;
  auto* layout = new QVBoxLayout(page);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("Which column holds what?")));
  columnsArea_ = new QWidget;
  new QGridLayout(columnsArea_);
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setWidget(columnsArea_);
  layout->addWidget(area, 2);
  preview_->setObjectName("importPreview");
  preview_->setWordWrap(true);
  preview_->setTextFormat(Qt::RichText);
  preview_->setAlignment(Qt::AlignTop);
  layout->addWidget(preview_, 1);
  auto* row = new QHBoxLayout;
  auto* take = namedButton(tr("Add these to the rack"), "takeImport");
  take->setProperty("primary", true);
  auto* leave = namedButton(tr("Leave it"), "leaveImport");
  row->addWidget(take);
  row->addWidget(leave);
  row->addStretch();
  layout->addLayout(row);
  connect(take, &QPushButton::clicked, this, &RackPage::takeImport);
  connect(leave, &QPushButton::clicked, this, [this] { stack_->setCurrentIndex(0); });
  return page;
}

void RackPage::previewImport(const QString& name) {
  QFile file(name);
  const bool fits = QFileInfo(name).size() <= kLargestTable_bytes && file.open(QIODevice::ReadOnly);
  const QByteArray bytes = fits ? file.readAll() : QByteArray();
  auto table = readCsv({bytes.constData(), static_cast<std::size_t>(bytes.size())});
  if (!fits || !table) {
    return say(
        tr("%1: %2").arg(QFileInfo(name).fileName(), fits ? QString::fromStdString(table.error().message)
                                                          : tr("the file cannot be read, or is no table")));
  }
  read_ = std::move(*table);
  const ColumnMap guess = guessColumns(read_);
  auto* grid = static_cast<QGridLayout*>(columnsArea_->layout());
  while (QLayoutItem* item = grid->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  columns_.clear();
  int i = 0;
  for (const RackField& field : rackFields()) {
    auto* choice = new QComboBox;
    choice->setObjectName("column_" + QString::fromStdString(field.name));
    choice->addItem(tr("none"), -1);
    for (std::size_t c = 0; c < read_.heads.size(); ++c) {
      choice->addItem(QString::fromStdString(read_.heads[c]), static_cast<int>(c));
    }
    if (const auto at = guess.find(field.name); at != guess.end())
      choice->setCurrentIndex(static_cast<int>(at->second) + 1);
    grid->addWidget(new QLabel(columnTitle(field)), i / 3, 2 * (i % 3));
    grid->addWidget(choice, i / 3, 2 * (i % 3) + 1);
    ++i;
    columns_.emplace_back(field.name, choice);
    connect(choice, &QComboBox::currentIndexChanged, this, &RackPage::showPreview);
  }
  stack_->setCurrentIndex(1);
  showPreview();
}

ColumnMap RackPage::chosenColumns() const {
  ColumnMap out;
  for (const auto& [field, choice] : columns_) {
    const int column = choice->currentData().toInt();
    if (column >= 0) out.emplace(field, static_cast<std::size_t>(column));
  }
  return out;
}

void RackPage::showPreview() {
  const auto would = importRack(controller_.plan().rack, read_, chosenColumns());
  if (!would) {
    preview_->setText(QString::fromStdString(would.error().message).toHtmlEscaped());
    return;
  }
  QString out = tr("<b>%1 lines can be added</b>, %2 cannot.").arg(would->added).arg(would->bad.size());
  for (std::size_t i = 0; i < would->bad.size() && i < kBadLinesShown; ++i) {
    out += tr("<br>Line %1: %2")
               .arg(would->bad[i].line)
               .arg(QString::fromStdString(would->bad[i].why).toHtmlEscaped());
  }
  if (would->bad.size() > kBadLinesShown)
    out += tr("<br>… and %1 more").arg(would->bad.size() - kBadLinesShown);
  preview_->setText(out);
}

void RackPage::takeImport() {
  auto done = importRack(controller_.plan().rack, read_, chosenColumns());
  if (!done) return showPreview();
  controller_.edit(tr("Import a table"), [&](DayPlan& plan) { plan.rack = std::move(done->rack); });
  stack_->setCurrentIndex(0);
}

void RackPage::exportRack() {
  const QString name = askWhereTo(this, tr("Export the rack"), "rack.csv", tr("Tables (*.csv)"));
  if (name.isEmpty()) return;
  const std::string text = writeCsv(fin::exportRack(controller_.plan().rack));
  if (const auto done = writeFile(withEnding(name, ".csv"), QByteArray::fromStdString(text)); !done) {
    say(QString::fromStdString(done.error().message));
  }
}

void RackPage::say(const QString& trouble) {
  message_->setText(trouble);
  message_->show();
}

}  // namespace fin::app
