// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/equal_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/phrases/words.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"
#include "core/water/weight_change.h"

namespace fin::app {

EqualPage::EqualPage(DayController& controller, QWidget* parent)
    : QWidget(parent), controller_(controller), table_(new QTableWidget) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("What must be the same for every pass, and where it was not")));
  TableHeads::keepWhole(*table_);
  table_->setObjectName("heldEqual");
  table_->setAccessibleName(tr("Held equal"));
  table_->setColumnCount(3);
  table_->setHorizontalHeaderLabels({tr("What"), tr("The same for all"), tr("But not here")});
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  table_->verticalHeader()->hide();
  table_->setTabKeyNavigation(false);
  layout->addWidget(table_, 1);
  auto* row = new QHBoxLayout;
  auto* add = namedButton(tr("Add a line"), "addHeld");
  row->addWidget(add);
  row->addWidget(faintLabel(tr("What stands under “But not here” is carried to every later comparison.")), 1);
  layout->addLayout(row);
  layout->addWidget(buildHeads());
  connect(add, &QPushButton::clicked, this, [this] {
    controller_.edit(tr("Add what is held equal"), [](DayPlan& plan) {
      plan.heldEqual.push_back({tr("Something else").toStdString(), "", ""});
    });
  });
  connect(table_, &QTableWidget::cellChanged, this, &EqualPage::take);
  connect(&controller, &DayController::planChanged, this, &EqualPage::refresh);
  connect(&Settings::all(), &Settings::unitsChanged, this, &EqualPage::answer);
  refresh();
}

QWidget* EqualPage::buildHeads() {
  auto* box = card();
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(14, 10, 14, 12);
  grid->addWidget(headingLabel(tr("Fair heads for plastics that float")), 0, 0, 1, 4);
  grid->addWidget(
      faintLabel(tr("On an equal head, a light buoyant plastic sinks slower: that is a finding, and an "
                    "unfairness. For the other comparison, equal fall rates, this head is needed:")),
      1, 0, 1, 4);
  const auto add = [&](int row, int column, const QString& text, const char* name, const char* unit,
                       UnitBox::Range range, double value) {
    auto* input = new UnitBox(text, unit, range);
    input->setObjectName(name);
    input->show(value);
    auto* label = new QLabel(text);
    label->setBuddy(input);
    grid->addWidget(label, row, column);
    grid->addWidget(input, row, column + 1);
    connect(input, &UnitBox::edited, this, &EqualPage::answer);
    return input;
  };
  measured_ = add(2, 0, tr("It fell at"), "headMeasured", "mm/s", {0.0, 1e4, 0}, 210.0);
  wanted_ = add(2, 2, tr("It should fall at"), "headWanted", "mm/s", {0.0, 1e4, 0}, 160.0);
  head_ = add(3, 0, tr("On a head of"), "headWeight", "g", {0.0, 1e4, 2}, 7.0);
  rest_ = add(3, 2, tr("The rest weighs, in water"), "restInWater", "g", {-1e4, 1e4, 2}, -0.5);
  material_ = add(4, 0, tr("The head's density"), "headMaterial", "kg/m³", {1000.0, 25000.0, 0}, 11300.0);
  grid->addWidget(
      faintLabel(tr("Lead 11300, tungsten 19300, steel 7850, brass 8500. Negative in water: it floats.")), 4,
      2, 1, 2);
  answer_ = new QLabel;
  answer_->setObjectName("headAnswer");
  answer_->setWordWrap(true);
  setLetters(*answer_, "large");
  grid->addWidget(answer_, 5, 0, 1, 4);
  return box;
}

void EqualPage::answer() {
  RigWeights rig;
  rig.head = Grams(head_->metric());
  rig.bodyInWater = Grams(rest_->metric());
  rig.headMaterial = KilogramsPerCubicMetre(material_->metric());
  const WaterState water = controller_.plan().water.state();
  const auto head = headForRate({.fallRate = {.value = measured_->metric()},
                                 .measured = rig,
                                 .measuredWater = water,
                                 .changed = rig,
                                 .changedWater = water},
                                MillimetresPerSecond(wanted_->metric()));
  setLook(*answer_, "trouble", !head);
  answer_->setText(head ? tr("A head of %1, if it keeps its attitude.")
                              .arg(spokenAmount(head->value(), "g", 1, Settings::all().units()))
                        : QString::fromStdString(head.error().message));
}

void EqualPage::take(int row, int column) {
  const std::string text = table_->item(row, column)->text().toStdString();
  controller_.edit(tr("Change what is held equal"), [&](DayPlan& plan) {
    HeldEqual& h = plan.heldEqual[static_cast<std::size_t>(row)];
    (column == 0 ? h.what : column == 1 ? h.value : h.exception) = text;
    if (h == HeldEqual{}) plan.heldEqual.erase(plan.heldEqual.begin() + row);
  });
}

void EqualPage::refresh() {
  const QSignalBlocker quiet(table_);
  const auto& held = controller_.plan().heldEqual;
  table_->setRowCount(static_cast<int>(held.size()));
  for (int row = 0; row < table_->rowCount(); ++row) {
    const HeldEqual& h = held[static_cast<std::size_t>(row)];
    int column = 0;
    for (const std::string* text : {&h.what, &h.value, &h.exception}) {
      table_->setItem(row, column++, new QTableWidgetItem(QString::fromStdString(*text)));
    }
  }
  answer();
}

}  // namespace fin::app
