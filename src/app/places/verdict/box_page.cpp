// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/box_page.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"
#include "core/season/box.h"

namespace fin::app {
namespace {

QTableWidget* readTable(const char* name, const QString& accessible, const QStringList& heads) {
  auto* table = new QTableWidget;
  TableHeads::keepWhole(*table);
  table->setObjectName(name);
  table->setAccessibleName(accessible);
  table->setColumnCount(static_cast<int>(heads.size()));
  table->setHorizontalHeaderLabels(heads);
  table->verticalHeader()->hide();
  table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table->setTabKeyNavigation(false);
  table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  return table;
}

QString points(double value) {
  return QString::number(value, 'f', 1);
}

/// Of these lures the one that does best by a purpose, and the rack's best.
struct BestBy {
  std::optional<std::size_t> own;
  double ownPoints = 0.0;
  double rackPoints = 0.0;
};
BestBy bestBy(const std::vector<BoxLure>& lures, const std::vector<std::size_t>& box, std::size_t purpose) {
  BestBy out;
  for (const BoxLure& lure : lures)
    out.rackPoints = std::max(out.rackPoints, lure.points[purpose].value_or(0.0));
  for (const std::size_t i : box) {
    const auto own = lures[i].points[purpose];
    if (!own || (out.own && *own <= out.ownPoints)) continue;
    out.own = i;
    out.ownPoints = *own;
  }
  return out;
}

}  // namespace

BoxPage::BoxPage(WaterController& water, const VerdictController& verdict, QWidget* parent)
    : QWidget(parent),
      water_(water),
      verdict_(verdict),
      purposes_(new QListWidget),
      slots_(new QSpinBox),
      loss_(new QDoubleSpinBox),
      hours_(new QSpinBox),
      headline_(new WholeLabel),
      words_(new WholeLabel),
      covered_(readTable("boxCovered", tr("Which lure serves each purpose"),
                         {tr("For"), tr("Lure"), tr("Points"), tr("Best of the rack")})),
      spares_(readTable("boxSpares", tr("How many spares to take"),
                        {tr("Rig"), tr("Lost so far"), tr("Rod-hours"), tr("Spares to take")})) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 12, 16, 12);
  row->setSpacing(18);
  row->addWidget(buildWanted());
  auto* right = new QVBoxLayout;
  headline_->setObjectName("boxHeadline");
  setLetters(*headline_, "large");
  right->addWidget(headline_);
  words_->setObjectName("boxWords");
  right->addWidget(words_);
  right->addWidget(covered_, 3);
  right->addWidget(headingLabel(tr("Spares, so that running out is as rare as one trip in ten")));
  right->addWidget(spares_, 2);
  row->addLayout(right, 1);
  connect(&water_, &WaterController::changed, this, [this] {
    if (isVisible()) refresh();
  });
  connect(&verdict_, &VerdictController::changed, this, [this] {
    if (!isVisible()) return;
    fillPurposes();
    refresh();
  });
}

QWidget* BoxPage::buildWanted() {
  auto* left = new QWidget;
  left->setFixedWidth(kChoicesWidth_px);
  auto* layout = new QVBoxLayout(left);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("What the box is for")));
  purposes_->setObjectName("boxPurposes");
  purposes_->setAccessibleName(tr("Purposes that the box is for"));
  layout->addWidget(purposes_, 1);
  auto* form = new QFormLayout;
  slots_->setObjectName("boxSlots");
  slots_->setAccessibleName(tr("Slots of the box"));
  slots_->setRange(0, 40);
  slots_->setSpecialValueText(tr("as few as do"));
  slots_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  loss_->setObjectName("boxLoss");
  loss_->setAccessibleName(tr("Points under the best that still do"));
  loss_->setRange(0.0, 10.0);
  loss_->setDecimals(1);
  loss_->setValue(1.0);
  loss_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  hours_->setObjectName("boxHours");
  hours_->setAccessibleName(tr("Rod-hours ahead, for the spares"));
  hours_->setRange(0, 1000);
  hours_->setValue(6);
  hours_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  form->addRow(tr("Slots"), slots_);
  form->addRow(tr("Points under the best"), loss_);
  form->addRow(tr("Rod-hours ahead"), hours_);
  layout->addLayout(form);
  connect(purposes_, &QListWidget::itemChanged, this, &BoxPage::refresh);
  connect(slots_, &QSpinBox::valueChanged, this, &BoxPage::refresh);
  connect(loss_, &QDoubleSpinBox::valueChanged, this, &BoxPage::refresh);
  connect(hours_, &QSpinBox::valueChanged, this, &BoxPage::refresh);
  return left;
}

void BoxPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  fillPurposes();
  refresh();
}

void BoxPage::fillPurposes() {
  const QSignalBlocker quiet(purposes_);
  QStringList off;
  for (int i = 0; i < purposes_->count(); ++i) {
    if (purposes_->item(i)->checkState() == Qt::Unchecked) off += purposes_->item(i)->text();
  }
  purposes_->clear();
  for (const Purpose& purpose : verdict_.plan().purposes) {
    auto* item = new QListWidgetItem(QString::fromStdString(purpose.name), purposes_);
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setCheckState(off.contains(item->text()) ? Qt::Unchecked : Qt::Checked);
  }
}

std::vector<std::size_t> BoxPage::ticked() const {
  std::vector<std::size_t> out;
  for (int i = 0; i < purposes_->count(); ++i) {
    if (purposes_->item(i)->checkState() == Qt::Checked) out.push_back(static_cast<std::size_t>(i));
  }
  return out;
}

void BoxPage::refresh() {
  VerdictPlan wanted = verdict_.plan();
  const std::vector<std::size_t> chosen = ticked();
  wanted.purposes.clear();
  for (const std::size_t i : chosen) wanted.purposes.push_back(verdict_.plan().purposes[i]);
  covered_->setRowCount(0);
  fillSpares();
  if (wanted.purposes.empty()) {
    headline_->setText(tr("Tick what the box is for."));
    return words_->clear();
  }
  const std::vector<BoxLure> lures = boxLures(water_.season(), wanted);
  const std::vector<double> weights(wanted.purposes.size(), 1.0);
  const auto box = slots_->value() > 0
                       ? bestForSlots(lures, weights, static_cast<std::size_t>(slots_->value()))
                       : fewestLures(lures, weights, loss_->value());
  if (!box) {
    headline_->setText(asSentence(QString::fromStdString(box.error().message)) + ".");
    return words_->clear();
  }
  QStringList names;
  for (const std::size_t i : box->lures) names += QString::fromStdString(lures[i].name);
  headline_->setText(names.isEmpty() ? tr("Of no lure enough is known to fill a box.")
                                     : tr("Take: %1").arg(names.join("; ")));
  QStringList words;
  words += tr("Against the best of the rack it loses %1 points on average.").arg(box->loss, 0, 'f', 2);
  QStringList uncovered;
  for (const std::size_t p : box->uncovered) uncovered += QString::fromStdString(wanted.purposes[p].name);
  if (!uncovered.isEmpty())
    words += tr("Not covered, as of no rig half is known that it asks for: %1.").arg(uncovered.join(", "));
  if (const auto buy = buyFirst(lures, weights); buy && *buy)
    words += tr("Buy first: %1, which takes %2 points off the loss.")
                 .arg(QString::fromStdString(lures[(*buy)->lure].name))
                 .arg((*buy)->saved, 0, 'f', 2);
  words_->setText(words.join(" "));
  covered_->setRowCount(static_cast<int>(wanted.purposes.size()));
  for (int r = 0; r < covered_->rowCount(); ++r) {
    const auto p = static_cast<std::size_t>(r);
    const BestBy best = bestBy(lures, box->lures, p);
    covered_->setItem(r, 0, readOnlyCell(QString::fromStdString(wanted.purposes[p].name)));
    covered_->setItem(
        r, 1, readOnlyCell(best.own ? QString::fromStdString(lures[*best.own].name) : tr("nothing known")));
    covered_->setItem(r, 2, readOnlyCell(best.own ? points(best.ownPoints) : QString(), kNumberCell));
    covered_->setItem(r, 3,
                      readOnlyCell(best.rackPoints > 0.0 ? points(best.rackPoints) : QString(), kNumberCell));
  }
  covered_->resizeColumnToContents(1);
}

void BoxPage::fillSpares() {
  const auto tallies = talliesOf(water_.season().runs);
  spares_->setRowCount(0);
  for (const RigTally& tally : tallies) {
    const auto spares = sparesFor(tally.lost, tally.hours, hours_->value());
    if (!spares) continue;
    const int row = spares_->rowCount();
    spares_->insertRow(row);
    spares_->setItem(row, 0, readOnlyCell(water_.rigName(tally.rig)));
    spares_->setItem(row, 1, readOnlyCell(QString::number(tally.lost), kNumberCell));
    spares_->setItem(row, 2, readOnlyCell(QString::number(tally.hours, 'f', 1), kNumberCell));
    spares_->setItem(row, 3, readOnlyCell(QString::number(spares->take), kNumberCell));
  }
}

}  // namespace fin::app
