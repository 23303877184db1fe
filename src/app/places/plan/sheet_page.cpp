// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/sheet_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

#include "app/places/plan/number_form.h"
#include "app/print/sheets.h"
#include "app/print/writing.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "core/units/typed_amount.h"

namespace fin::app {
namespace {

constexpr int kNoteColumn = 5;

NumberLine minutes(const QString& label, const char* name, double SheetOptions::*member) {
  return numberLine(label, name, "min", {0.0, 10000.0, 0}, &DayPlan::options, member);
}

std::vector<double> speedsIn(const DayPlan& plan) {
  for (const SheetTask& task : plan.options.tasks) {
    if (!task.speeds_mm_s.empty()) return task.speeds_mm_s;
  }
  return {};
}

}  // namespace

SheetPage::SheetPage(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      message_(new QLabel),
      time_(new QLabel),
      table_(new QTableWidget) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  layout->addWidget(buildOptions());
  layout->addWidget(buildButtons());
  message_->setObjectName("sheetMessage");
  message_->setProperty("trouble", true);
  message_->setWordWrap(true);
  message_->hide();
  layout->addWidget(message_);
  time_->setObjectName("sheetTime");
  layout->addWidget(time_);
  TableHeads::keepWhole(*table_);
  table_->setObjectName("sheet");
  table_->setAccessibleName(tr("Pass sheet"));
  table_->setColumnCount(6);
  table_->setHorizontalHeaderLabels(
      {tr("Block"), tr("Rig"), tr("Pass"), tr("Name read out"), tr("How it went"), tr("Note")});
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setTabKeyNavigation(false);
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->setColumnWidth(0, 56);
  table_->setColumnWidth(1, 215);
  table_->setColumnWidth(2, 270);
  table_->setColumnWidth(3, 110);
  table_->setColumnWidth(4, 150);
  layout->addWidget(table_, 1);
  if (QWidget* lines = cautionLines(Step::Sheet)) layout->addWidget(lines);
  connect(table_, &QTableWidget::cellChanged, this, &SheetPage::take);
  connect(&controller, &DayController::planChanged, this, &SheetPage::refresh);
  refresh();
}

QWidget* SheetPage::buildOptions() {
  auto* box = card();
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(14, 8, 14, 8);
  row->setSpacing(26);
  const auto column = [&] {
    auto* grid = new QGridLayout;
    grid->setVerticalSpacing(4);
    row->addLayout(grid);
    return grid;
  };
  const auto addRow = [](QGridLayout& grid, const QString& text, QWidget* input, const char* name) {
    const int at = grid.rowCount();
    auto* label = new QLabel(text);
    label->setBuddy(input);
    input->setObjectName(name);
    grid.addWidget(label, at, 0);
    grid.addWidget(input, at, 1);
    return label;
  };
  const auto count = [](int most) {
    auto* input = new QSpinBox;
    input->setRange(1, most);
    input->setButtonSymbols(QAbstractSpinBox::NoButtons);
    input->setKeyboardTracking(false);
    return input;
  };
  auto* first = column();
  repeats_ = count(99);
  seed_ = count(999999);
  speeds_ = new QLineEdit;
  speeds_->setPlaceholderText(tr("200, 300, 400"));
  addRow(*first, tr("Each pass, times"), repeats_, "repeats");
  speedsLabel_ = addRow(*first, tr("Speeds"), speeds_, "speeds");
  addRow(*first, tr("Shuffle number"), seed_, "seed");
  auto* second = column();
  control_ = new QComboBox;
  controlEvery_ = count(99);
  controlEvery_->setSuffix(tr(" passes"));
  addRow(*second, tr("Control rig"), control_, "controlRig");
  addRow(*second, tr("comes back every"), controlEvery_, "controlEvery");
  control_->setMinimumWidth(190);
  blind_ = new QCheckBox(tr("Letters instead of names"));
  blind_->setObjectName("blind");
  together_ = new QCheckBox(tr("All cameras run at once"));
  together_->setObjectName("together");
  second->addWidget(blind_, second->rowCount(), 0, 1, 2);
  auto* third = column();
  addNumbers(*third, controller_,
             {minutes(tr("One pass takes"), "minutesPerPass", &SheetOptions::minutesPerPass),
              minutes(tr("Tying on takes"), "minutesPerRig", &SheetOptions::minutesPerRig),
              minutes(tr("Light left"), "daylight", &SheetOptions::daylight_min)},
             *this);
  third->addWidget(together_, third->rowCount(), 0, 1, 2);
  row->addStretch();

  const auto option = [this](const QString& what, auto change) {
    return [this, what, change](auto value) {
      controller_.edit(what, [&](DayPlan& plan) { change(plan, value); });
    };
  };
  connect(repeats_, &QSpinBox::valueChanged, this,
          option(tr("Repeats"), [](DayPlan& p, int v) { p.options.repeats = v; }));
  connect(seed_, &QSpinBox::valueChanged, this, option(tr("Draw another order"), [](DayPlan& p, int v) {
            p.options.seed = static_cast<unsigned>(v);
          }));
  connect(controlEvery_, &QSpinBox::valueChanged, this,
          option(tr("Control passes"), [](DayPlan& p, int v) { p.options.controlEvery = v; }));
  connect(control_, &QComboBox::activated, this,
          option(tr("Choose the control rig"),
                 [this](DayPlan& p, int) { p.options.controlRig = control_->currentData().toLongLong(); }));
  connect(blind_, &QCheckBox::clicked, this,
          option(tr("Blind labels"), [](DayPlan& p, bool v) { p.options.blind = v; }));
  connect(together_, &QCheckBox::clicked, this, option(tr("Cameras"), [](DayPlan& p, bool v) {
            const auto speeds = speedsIn(p);
            p.options.camerasTogether = v;
            p.options.tasks = tasksFor(p.questions, speeds, v);
          }));
  connect(speeds_, &QLineEdit::editingFinished, this, &SheetPage::takeSpeeds);
  return box;
}

QWidget* SheetPage::buildButtons() {
  auto* bar = new QWidget;
  auto* row = new QHBoxLayout(bar);
  row->setContentsMargins(0, 0, 0, 0);
  const auto button = [&](const QString& text, const char* name, auto&& what) {
    auto* b = namedButton(text, name);
    connect(b, &QPushButton::clicked, this, what);
    row->addWidget(b);
    return b;
  };
  auto* make = button(tr("Make the sheet"), "makeSheet", [this] {
    const auto made = controller_.makeSheet();
    message_->setVisible(!made);
    if (!made) message_->setText(QString::fromStdString(made.error().message));
  });
  make->setProperty("primary", true);
  row->addSpacing(14);
  button(tr("Earlier"), "earlier", [this] { move(-1); });
  button(tr("Later"), "later", [this] { move(1); });
  button(tr("Remove"), "removePass", [this] {
    const int row_ = table_->currentRow();
    if (row_ < 0) return;
    controller_.edit(tr("Remove a pass from the sheet"),
                     [row_](DayPlan& plan) { plan.sheet.erase(plan.sheet.begin() + row_); });
  });
  row->addStretch();
  button(tr("Print as PDF …"), "printSheet", [this] { printTo("pdf"); });
  button(tr("Export …"), "exportSheet", [this] { printTo("csv"); });
  return bar;
}

void SheetPage::takeSpeeds() {
  std::vector<double> speeds;
  const std::string own = shownUnit(kPullSpeed, controller_.units()).unit.toStdString();
  // A space within "1.8 mph" parts nothing.
  static const QRegularExpression between("[,;]|\\s+(?=[0-9.])");
  for (const QString& part : speeds_->text().split(between, Qt::SkipEmptyParts)) {
    const auto speed = typedAmount(part.trimmed().toStdString(), "mm/s", own);
    if (!speed || *speed <= 0.0) {
      message_->setText(tr("“%1” is not a speed; write numbers with commas between.").arg(part.trimmed()));
      message_->show();
      return;
    }
    speeds.push_back(*speed);
  }
  message_->hide();
  controller_.edit(tr("Say the speeds"), [&](DayPlan& plan) {
    plan.options.tasks = tasksFor(plan.questions, speeds, plan.options.camerasTogether);
  });
}

void SheetPage::move(int by) {
  const int row = table_->currentRow();
  const int to = row + by;
  if (row < 0 || to < 0 || to >= table_->rowCount()) return;
  controller_.edit(tr("Move a pass"), [&](DayPlan& plan) {
    std::swap(plan.sheet[static_cast<std::size_t>(row)], plan.sheet[static_cast<std::size_t>(to)]);
  });
  table_->selectRow(to);
}

void SheetPage::take(int row, int column) {
  if (column != kNoteColumn) return;
  const std::string note = table_->item(row, column)->text().toStdString();
  controller_.edit(tr("Note on a pass"),
                   [&](DayPlan& plan) { plan.sheet[static_cast<std::size_t>(row)].note = note; });
}

void SheetPage::printTo(const char* kind) {
  const bool pdf = qstrcmp(kind, "pdf") == 0;
  const QString name = askWhereTo(this, tr("Where to"), pdf ? "pass-sheet.pdf" : "pass-sheet.csv");
  if (name.isEmpty()) return;
  const Result<void> done = pdf ? printPassSheet(controller_, withEnding(name, ".pdf"))
                                : writeFile(withEnding(name, ".csv"),
                                            QByteArray::fromStdString(writeCsv(passSheetTable(controller_))));
  message_->setVisible(!done);
  if (!done) message_->setText(QString::fromStdString(done.error().message));
}

void SheetPage::refresh() {
  const DayPlan& plan = controller_.plan();
  const QSignalBlocker quiet[] = {QSignalBlocker(repeats_), QSignalBlocker(seed_),
                                  QSignalBlocker(controlEvery_), QSignalBlocker(table_)};
  repeats_->setValue(plan.options.repeats);
  seed_->setValue(static_cast<int>(plan.options.seed));
  controlEvery_->setValue(plan.options.controlEvery);
  blind_->setChecked(plan.options.blind);
  together_->setChecked(plan.options.camerasTogether);
  control_->clear();
  control_->addItem(tr("none"), QVariant::fromValue<qlonglong>(0));
  for (const Rig& rig : plan.rack.rigs) {
    control_->addItem(QString::fromStdString(plan.rack.fullName(rig)),
                      QVariant::fromValue<qlonglong>(rig.id.value()));
  }
  control_->setCurrentIndex(
      std::max(control_->findData(QVariant::fromValue<qlonglong>(plan.options.controlRig.value())), 0));
  if (!speeds_->hasFocus()) {
    QStringList speeds;
    const ShownUnit unit = shownUnit(kPullSpeed, controller_.units());
    for (double v : speedsIn(plan)) speeds << QString::number(v * unit.factor, 'g', 4);
    speedsLabel_->setText(tr("Speeds, %1").arg(unit.unit));
    speeds_->setText(speeds.join(", "));
  }
  const int selected = table_->currentRow();
  table_->setRowCount(static_cast<int>(plan.sheet.size()));
  for (int row = 0; row < table_->rowCount(); ++row) {
    const PlannedPass& p = plan.sheet[static_cast<std::size_t>(row)];
    const Rig* rig = plan.rack.rig(p.rig);
    const QString cells[] = {
        QString::number(p.block),
        rig == nullptr ? tr("off the rack") : QString::fromStdString(plan.rack.fullName(*rig)),
        controller_.taskOf(p),
        QString::fromStdString(p.label),
        spokenState(p),
        QString::fromStdString(p.note)};
    for (int c = 0; c < 6; ++c) {
      auto* item = new QTableWidgetItem(cells[c]);
      if (c != kNoteColumn) item->setFlags(item->flags() & ~Qt::ItemIsEditable);
      table_->setItem(row, c, item);
    }
  }
  if (selected >= 0) table_->selectRow(std::min(selected, table_->rowCount() - 1));
  const SheetTime time = timeFor(plan.sheet, plan.options);
  time_->setText(
      plan.sheet.empty()
          ? tr("No passes yet. Ask a question, put rigs on the rack, then make the sheet.")
          : tr("%1 passes. What is left takes about %2 of the %3 minutes of light, with %4 changes of rig.")
                .arg(plan.sheet.size())
                .arg(time.minutes, 0, 'f', 0)
                .arg(plan.options.daylight_min, 0, 'f', 0)
                .arg(time.rigChanges));
  setLook(*time_, "trouble", time.minutes > plan.options.daylight_min);
}

}  // namespace fin::app
