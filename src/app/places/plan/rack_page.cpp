// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/rack_page.h"

#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QVBoxLayout>

#include "app/print/writing.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"

namespace fin::app {
namespace {

// What is seen at a glance; the rest stands beside the table.
constexpr const char* kShownColumns[] = {"model",    "rig",    "family", "length_mm",
                                         "weight_g", "head_g", "hook_g", "price"};
constexpr std::size_t kBadLinesShown = 12;
constexpr int kPhotoWidth = 290;
constexpr std::int64_t kLargestTable_bytes = 64 << 20;

}  // namespace

RackPage::RackPage(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      model_(new RackTable(controller, this)),
      table_(new QTableView),
      stack_(new QStackedWidget),
      message_(new QLabel),
      photo_(new QLabel),
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
  connect(model_, &RackTable::refused, this, [this](const QString& why) {
    message_->setText(why);
    message_->show();
  });
  connect(&controller, &DayController::planChanged, this, [this] {
    message_->hide();
    showDetails();
  });
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
    beginNaming(*findChild<QLineEdit*>("rack_model"));
  });
  button(tr("Add a rig of it"), "addRig", [this, chosen] {
    const int at = table_->currentIndex().row();
    model_->addRig(chosen());
    table_->selectRow(at + 1);
    beginNaming(*findChild<QLineEdit*>("rack_rig"));
  });
  button(tr("Remove"), "removeRig", [this, chosen] { model_->remove(chosen()); });
  row->addStretch();
  button(tr("Import a table …"), "importRack", [this] {
    const QString file =
        QFileDialog::getOpenFileName(this, tr("Import a table"), {}, tr("Tables (*.csv *.txt *.tsv)"));
    if (!file.isEmpty()) previewImport(file);
  });
  button(tr("Export …"), "exportRack", [this] { exportRack(); });
  left->addLayout(row);
  table_->setModel(model_);
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
  table_->horizontalHeader()->setDefaultSectionSize(84);
  table_->setColumnWidth(0, 104);
  for (std::size_t i = 0; i < rackFields().size(); ++i) {
    if (rackFields()[i].name == "rig") table_->setColumnWidth(static_cast<int>(i), 108);
    if (rackFields()[i].name == "length_mm") table_->setColumnWidth(static_cast<int>(i), 96);
    if (rackFields()[i].name == "price") table_->setColumnWidth(static_cast<int>(i), 62);
  }
  left->addWidget(table_, 1);
  layout->addLayout(left, 1);
  layout->addWidget(buildDetails());
  connect(table_->selectionModel(), &QItemSelectionModel::currentChanged, this, &RackPage::showDetails);
  return page;
}

QWidget* RackPage::buildDetails() {
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setFixedWidth(320);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* content = new QWidget;
  auto* grid = new QGridLayout(content);
  grid->setContentsMargins(0, 0, 8, 0);
  grid->setVerticalSpacing(4);
  bool rig = false;
  grid->addWidget(headingLabel(tr("The model")), 0, 0, 1, 2);
  for (std::size_t i = 0; i < rackFields().size(); ++i) {
    const RackField& field = rackFields()[i];
    if (field.ofRig && !rig) grid->addWidget(headingLabel(tr("The rig on it")), grid->rowCount(), 0, 1, 2);
    rig = field.ofRig;
    auto* edit = new QLineEdit;
    edit->setObjectName("rack_" + QString::fromStdString(field.name));
    auto* label = new QLabel(columnTitle(field));
    label->setBuddy(edit);
    connect(&Settings::all(), &Settings::unitsChanged, label,
            [label, &field] { label->setText(columnTitle(field)); });
    const int row = grid->rowCount();
    grid->addWidget(label, row, 0);
    grid->addWidget(edit, row, 1);
    details_.push_back(edit);
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, i] {
      const QModelIndex at = model_->index(table_->currentIndex().row(), static_cast<int>(i));
      if (at.isValid() && at.data() != edit->text()) model_->setData(at, edit->text(), Qt::EditRole);
    });
  }
  connect(&Settings::all(), &Settings::unitsChanged, this, &RackPage::showDetails);
  photo_->setAccessibleName(tr("Photo of the model"));
  grid->addWidget(photo_, grid->rowCount(), 0, 1, 2);
  area->setWidget(content);
  showDetails();
  return area;
}

void RackPage::showPhoto() {
  const Rig* rig = controller_.plan().rack.rig(model_->rigAt(table_->currentIndex().row()));
  const Model* model = rig == nullptr ? nullptr : controller_.plan().rack.model(rig->model);
  const QPixmap photo(model == nullptr ? QString() : QString::fromStdString(model->photo));
  photo_->setVisible(!photo.isNull());
  if (!photo.isNull()) photo_->setPixmap(photo.scaledToWidth(kPhotoWidth, Qt::SmoothTransformation));
}

void RackPage::showDetails() {
  showPhoto();
  const int row = table_->currentIndex().row();
  const bool any = row >= 0 && row < model_->rowCount();
  for (std::size_t i = 0; i < details_.size(); ++i) {
    enableOr(*details_[i], any, tr("Choose a rig in the table first."));
    const QString text = any ? model_->index(row, static_cast<int>(i)).data().toString() : QString();
    if (details_[i]->text() != text) details_[i]->setText(text);
  }
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
    message_->setText(
        tr("%1: %2").arg(QFileInfo(name).fileName(), fits ? QString::fromStdString(table.error().message)
                                                          : tr("the file cannot be read, or is no table")));
    message_->show();
    return;
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
  const QString name =
      QFileDialog::getSaveFileName(this, tr("Export the rack"), "rack.csv", tr("Tables (*.csv)"));
  if (name.isEmpty()) return;
  const std::string text = writeCsv(fin::exportRack(controller_.plan().rack));
  if (const auto done = writeFile(withEnding(name, ".csv"), QByteArray::fromStdString(text)); !done) {
    message_->setText(QString::fromStdString(done.error().message));
    message_->show();
  }
}

}  // namespace fin::app
