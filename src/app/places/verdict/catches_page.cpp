// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/catches_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

#include "app/phrases/water_words.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kLevel = 0.05;
constexpr int kMissesColumn = 5;
constexpr int kFollowsColumn = 6;
/// With or against the catches, or neither surely.
QString spokenTank(const TankAndWater& one) {
  const QString name = spokenName(one.reading);
  const QString rho = QString::number(one.agreement.rho, 'f', 2).replace('-', QChar(0x2212));
  const QString p = QString::number(one.p, 'f', 3);
  if (one.p >= kLevel)
    return QObject::tr("%1: does not surely go with the catches (rank %2, p %3, %4 rigs)")
        .arg(name, rho, p)
        .arg(one.rigs);
  return (one.agreement.rho > 0.0 ? QObject::tr("%1: more of it caught more (rank %2, p %3, %4 rigs)")
                                  : QObject::tr("%1: less of it caught more (rank %2, p %3, %4 rigs)"))
      .arg(name, rho, p)
      .arg(one.rigs);
}

}  // namespace

CatchesPage::CatchesPage(WaterController& water, QWidget* parent)
    : QWidget(parent),
      water_(water),
      headline_(new WholeLabel),
      how_(faintLabel({})),
      rigs_(new QTableWidget),
      first_(new QComboBox),
      second_(new QComboBox),
      pair_(new WholeLabel),
      tank_(new QListWidget) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(16, 12, 16, 12);
  layout->setSpacing(8);
  headline_->setObjectName("catchesHeadline");
  setLetters(*headline_, "large");
  layout->addWidget(headline_);
  layout->addWidget(how_);
  TableHeads::keepWhole(*rigs_);
  rigs_->setObjectName("catchRates");
  rigs_->setAccessibleName(tr("What came of each rig"));
  const QStringList heads{
      tr("Rig"),    tr("Rod-hours"), tr("Fish"), tr("Fish an hour"),    tr("Given the spread"),
      tr("Misses"), tr("Follows"),   tr("Lost"), tr("Fish per 10 paid")};
  rigs_->setColumnCount(static_cast<int>(heads.size()));
  rigs_->setHorizontalHeaderLabels(heads);
  rigs_->verticalHeader()->hide();
  rigs_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  rigs_->setSelectionBehavior(QAbstractItemView::SelectRows);
  rigs_->setTabKeyNavigation(false);
  rigs_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  rigs_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  layout->addWidget(rigs_, 3);
  auto* below = new QHBoxLayout;
  below->setSpacing(18);
  auto* left = new QVBoxLayout;
  left->addWidget(headingLabel(tr("Two rigs held against each other")));
  auto* choose = new QHBoxLayout;
  for (QComboBox* box : {first_, second_}) {
    choose->addWidget(box, 1);
    connect(box, &QComboBox::activated, this, &CatchesPage::showPair);
  }
  first_->setObjectName("catchFirst");
  first_->setAccessibleName(tr("One rig"));
  second_->setObjectName("catchSecond");
  second_->setAccessibleName(tr("The other rig"));
  left->addLayout(choose);
  pair_->setObjectName("catchPair");
  left->addWidget(pair_);
  left->addStretch();
  below->addLayout(left, 1);
  auto* right = new QVBoxLayout;
  right->addWidget(headingLabel(tr("Was the tank right?")));
  tank_->setObjectName("tankAndWater");
  tank_->setAccessibleName(tr("Readings held against the catches"));
  tank_->setWordWrap(true);
  tank_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  right->addWidget(tank_, 1);
  below->addLayout(right, 1);
  layout->addLayout(below, 2);
  layout->addWidget(cautionLines(Step::Catching));
  connect(&water_, &WaterController::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

void CatchesPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void CatchesPage::refresh() {
  const WaterSeason& season = water_.season();
  report_ = catchReport(season.rack, season.runs, season.candidates);
  if (report_.rigs.empty()) {
    headline_->setText(tr("Nothing was fished yet. Begin a day on the water with Ctrl D."));
  } else {
    const RigCatches& best = report_.rigs.front();
    headline_->setText(tr("Most fish an hour, given the spread: %1, %2")
                           .arg(QString::fromStdString(best.rig), spokenRate(best.shrunk)));
  }
  QStringList how{spokenHow(report_.how), tr("Ranges are 95 %. Shoals bunch: the ranges are too narrow by "
                                             "that. Place and hour are in all of it.")};
  for (const std::string& trouble : report_.troubles) how += QString::fromStdString(trouble);
  how_->setText(how.join(" "));
  fillRigs();
  fillTank();
  showPair();
}

void CatchesPage::fillRigs() {
  rigs_->setRowCount(static_cast<int>(report_.rigs.size()));
  for (int r = 0; r < rigs_->rowCount(); ++r) {
    const RigCatches& rig = report_.rigs[static_cast<std::size_t>(r)];
    const QStringList cells{QString::fromStdString(rig.rig),
                            QString::number(rig.tally.hours, 'f', 1),
                            QString::number(rig.tally.fish),
                            spokenRate(rig.fish),
                            spokenRate(rig.shrunk),
                            QString::number(rig.tally.misses),
                            QString::number(rig.tally.follows),
                            QString::number(rig.tally.lost),
                            rig.perTenPaid ? QString("%1 %2").arg(spokenRate(*rig.perTenPaid),
                                                                  QString::fromStdString(rig.currency))
                                           : tr("no price")};
    for (int c = 0; c < rigs_->columnCount(); ++c)
      rigs_->setItem(r, c, c == 0 ? readOnlyCell(cells[c]) : readOnlyCell(cells[c], kNumberCell));
    const std::pair<int, const Rate&> rates[] = {{kMissesColumn, rig.misses}, {kFollowsColumn, rig.follows}};
    for (const auto& [column, rate] : rates)
      rigs_->item(r, column)->setToolTip(tr("An hour: %1").arg(spokenRate(rate)));
  }
  for (QComboBox* box : {first_, second_}) {
    const QSignalBlocker quiet(box);
    const QString before = box->currentText();
    box->clear();
    for (const RigCatches& rig : report_.rigs) box->addItem(QString::fromStdString(rig.rig));
    const int known = before.isEmpty() ? -1 : box->findText(before);
    box->setCurrentIndex(known);
  }
  if (first_->currentIndex() >= 0 || report_.pairs.empty()) return;
  // The pair that was planned in stretches comes first.
  const auto planned = std::find_if(report_.pairs.begin(), report_.pairs.end(),
                                    [](const RigsByCatch& p) { return p.inBlocks.has_value(); });
  const RigsByCatch& pair = planned == report_.pairs.end() ? report_.pairs.front() : *planned;
  first_->setCurrentIndex(static_cast<int>(pair.a));
  second_->setCurrentIndex(static_cast<int>(pair.b));
}

void CatchesPage::showPair() {
  const auto a = static_cast<std::size_t>(std::min(first_->currentIndex(), second_->currentIndex()));
  const auto b = static_cast<std::size_t>(std::max(first_->currentIndex(), second_->currentIndex()));
  const auto pair = std::find_if(report_.pairs.begin(), report_.pairs.end(),
                                 [a, b](const RigsByCatch& p) { return p.a == a && p.b == b; });
  pair_->setText(pair != report_.pairs.end() ? spokenPair(report_, *pair)
                 : report_.rigs.size() < 2   ? tr("One rig alone has nothing to be held against.")
                 : a == b                    ? tr("Choose two rigs.")
                                             : tr("Neither of them caught anything: nothing can be said."));
}

void CatchesPage::fillTank() {
  tank_->clear();
  std::vector<const TankAndWater*> order;
  for (const TankAndWater& one : report_.tank) order.push_back(&one);
  std::stable_sort(order.begin(), order.end(), [](const TankAndWater* a, const TankAndWater* b) {
    return a->tooFew.empty() != b->tooFew.empty() ? a->tooFew.empty() : a->p < b->p;
  });
  // Readings that say nothing for one and the same reason share a line.
  std::vector<std::pair<std::string, QStringList>> silent;
  for (const TankAndWater* one : order) {
    if (one->tooFew.empty()) {
      tank_->addItem(spokenTank(*one));
      continue;
    }
    const auto known =
        std::find_if(silent.begin(), silent.end(), [one](const auto& s) { return s.first == one->tooFew; });
    if (known == silent.end()) {
      silent.emplace_back(one->tooFew, QStringList(spokenName(one->reading)));
    } else {
      known->second += spokenName(one->reading);
    }
  }
  for (const auto& [why, readings] : silent)
    tank_->addItem(QString("%1: %2").arg(readings.join(", "), QString::fromStdString(why)));
  if (order.empty()) tank_->addItem(tr("No rig was both measured in the tank and fished."));
}

}  // namespace fin::app
