// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/foretell_page.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "core/readings/registry.h"

namespace fin::app {
namespace {

constexpr double kNobodyKnows = 0.25;  ///< the score of who says fifty-fifty to everything
constexpr int kOrderHeight_px = 150;

double now_s() {
  return static_cast<double>(QDateTime::currentMSecsSinceEpoch()) / 1000.0;
}

/// Readings that this day's passes will give; all where nothing is planned yet.
std::vector<ReadingId> readingsFor(const DayPlan& plan) {
  std::vector<ReadingId> out;
  std::set<ReadingId> known;
  const auto add = [&](Protocol protocol) {
    for (const ReadingSpec& spec : readingsOf(protocol)) {
      if (!isClass(spec.id) && spec.id != ReadingId::TravelSpeed && known.insert(spec.id).second)
        out.push_back(spec.id);
    }
  };
  for (const SheetTask& task : plan.options.tasks) add(task.protocol);
  for (const PlannedPass& pass : plan.sheet) add(pass.protocol);
  if (out.empty()) std::for_each(kAllProtocols.begin(), kAllProtocols.end(), add);
  return out;
}

QString percent(double share) {
  return QObject::tr("%1 %").arg(qRound(100.0 * share));
}

}  // namespace

ForetellPage::ForetellPage(LogBook& book, QWidget* parent)
    : QWidget(parent),
      book_(book),
      score_(new WholeLabel),
      rig_(new QComboBox),
      reading_(new QComboBox),
      side_(new QComboBox),
      line_(new QDoubleSpinBox),
      unit_(new QLabel),
      sure_(new QComboBox),
      sayLine_(namedButton(tr("Say it"), "sayLine")),
      orderOf_(new QComboBox),
      order_(new QListWidget),
      sayOrder_(namedButton(tr("Say this order"), "sayOrder")),
      said_(new QListWidget),
      takeBack_(namedButton(tr("Take it back"), "takeBackForetold")),
      eye_(new WholeLabel) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(10);
  score_->setObjectName("forecastScore");
  setLetters(*score_, "middle");
  layout->addWidget(score_);
  layout->addWidget(buildLine());
  auto* below = new QHBoxLayout;
  below->setSpacing(18);
  auto* left = new QVBoxLayout;
  left->addWidget(headingLabel(tr("What was said, and what came of it")));
  said_->setObjectName("foretold");
  said_->setAccessibleName(tr("What was foretold, and what came of it"));
  said_->setWordWrap(true);
  said_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  left->addWidget(said_, 1);
  auto* undo = new QHBoxLayout;
  undo->addWidget(takeBack_);
  undo->addStretch();
  left->addLayout(undo);
  below->addLayout(left, 3);
  auto* right = new QVBoxLayout;
  right->addWidget(buildOrder());
  right->addWidget(headingLabel(tr("The eye above the water")));
  eye_->setObjectName("eyeAbove");
  right->addWidget(eye_);
  right->addStretch();
  below->addLayout(right, 2);
  layout->addLayout(below, 1);
  connect(takeBack_, &QPushButton::clicked, this, &ForetellPage::takeBack);
  connect(&book_.days(), &DayController::planChanged, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* ForetellPage::buildLine() {
  auto* box = card();
  auto* layout = new QVBoxLayout(box);
  layout->setContentsMargins(12, 8, 12, 10);
  layout->addWidget(headingLabel(tr("Before you film: what do you expect?")));
  rig_->setObjectName("foretellRig");
  rig_->setAccessibleName(tr("Rig"));
  reading_->setObjectName("foretellReading");
  reading_->setAccessibleName(tr("Reading"));
  side_->setObjectName("foretellSide");
  side_->setAccessibleName(tr("Over or under"));
  side_->addItems({tr("over"), tr("under")});
  line_->setObjectName("foretellLine");
  line_->setAccessibleName(tr("The line that it is over or under"));
  line_->setRange(-1e6, 1e6);
  line_->setDecimals(2);
  line_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  sure_->setObjectName("foretellSure");
  sure_->setAccessibleName(tr("How sure you are"));
  for (int tenth = 1; tenth <= 9; ++tenth) sure_->addItem(tr("%1 % sure").arg(10 * tenth), 0.1 * tenth);
  sure_->setCurrentIndex(6);
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  row->addWidget(rig_, 3);
  row->addWidget(reading_, 3);
  row->addWidget(side_);
  row->addWidget(line_);
  row->addWidget(unit_);
  row->addWidget(sure_);
  row->addWidget(sayLine_);
  layout->addLayout(row);
  connect(reading_, &QComboBox::currentIndexChanged, this, &ForetellPage::showUnit);
  connect(sayLine_, &QPushButton::clicked, this, &ForetellPage::sayLine);
  return box;
}

QWidget* ForetellPage::buildOrder() {
  auto* box = card();
  auto* layout = new QVBoxLayout(box);
  layout->setContentsMargins(12, 8, 12, 10);
  layout->addWidget(headingLabel(tr("Or in which order they come")));
  orderOf_->setObjectName("orderReading");
  orderOf_->setAccessibleName(tr("Reading of the order"));
  layout->addWidget(orderOf_);
  order_->setObjectName("orderRigs");
  order_->setAccessibleName(tr("Rigs, the highest first"));
  order_->setFixedHeight(kOrderHeight_px);
  order_->setDragDropMode(QAbstractItemView::InternalMove);
  layout->addWidget(order_);
  auto* row = new QHBoxLayout;
  auto* higher = namedButton(tr("Higher"), "orderHigher");
  auto* lower = namedButton(tr("Lower"), "orderLower");
  row->addWidget(higher);
  row->addWidget(lower);
  row->addStretch();
  row->addWidget(sayOrder_);
  layout->addLayout(row);
  connect(higher, &QPushButton::clicked, this, [this] { shift(-1); });
  connect(lower, &QPushButton::clicked, this, [this] { shift(1); });
  connect(sayOrder_, &QPushButton::clicked, this, &ForetellPage::sayOrder);
  return box;
}

void ForetellPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void ForetellPage::refresh() {
  fillChoices();
  fillSaid();
}

void ForetellPage::fillChoices() {
  const DayPlan& plan = book_.days().plan();
  const auto keep = [](QComboBox& box, auto fill) {
    const QSignalBlocker quiet(box);
    const QVariant before = box.currentData();
    box.clear();
    fill();
    box.setCurrentIndex(std::max(0, box.findData(before)));
  };
  keep(*rig_, [&] {
    for (const Rig& rig : plan.rack.rigs)
      rig_->addItem(QString::fromStdString(plan.rack.fullName(rig)),
                    QVariant::fromValue<qlonglong>(rig.id.value()));
  });
  for (QComboBox* box : {reading_, orderOf_}) {
    keep(*box, [&] {
      for (const ReadingId id : readingsFor(plan)) box->addItem(spokenName(id), static_cast<int>(id));
    });
  }
  std::set<qlonglong> known;
  for (int i = 0; i < order_->count(); ++i) known.insert(order_->item(i)->data(Qt::UserRole).toLongLong());
  if (known.size() != plan.rack.rigs.size()) {
    order_->clear();
    for (const Rig& rig : plan.rack.rigs) {
      auto* item = new QListWidgetItem(QString::fromStdString(plan.rack.fullName(rig)), order_);
      item->setData(Qt::UserRole, QVariant::fromValue<qlonglong>(rig.id.value()));
    }
  }
  const bool any = !plan.rack.rigs.empty();
  const QString why = tr("There are no rigs yet. Begin with the rack.");
  enableOr(*sayLine_, any, why);
  enableOr(*sayOrder_, plan.rack.rigs.size() > 1, any ? tr("An order wants two rigs.") : why);
  showUnit();
}

ReadingId ForetellPage::reading(const QComboBox& box) const {
  return static_cast<ReadingId>(box.currentData().toInt());
}

void ForetellPage::showUnit() {
  unit_->setText(shownUnit(reading(*reading_), book_.days().units()).unit);
}

QString ForetellPage::lineInWords(const ForetoldLine& line) const {
  const DayPlan& plan = book_.days().plan();
  const Rig* rig = plan.rack.rig(line.rig);
  const ShownUnit unit = shownUnit(line.reading, book_.days().units());
  return tr("%1: %2 %3 %4, %5 sure")
      .arg(rig != nullptr ? QString::fromStdString(plan.rack.fullName(*rig)) : tr("a rig that was taken out"),
           spokenName(line.reading), line.over ? tr("over") : tr("under"),
           QString("%1 %2").arg(unit.shown(line.line), 0, 'g', 4).arg(unit.unit).trimmed(),
           percent(line.chance));
}

QString ForetellPage::outcomeInWords(const ForetoldLine& line, const LineOutcome& outcome) const {
  const QString read = outcome.read
                           ? spokenAs(line.reading, 0.5 * (outcome.read->from + outcome.read->to),
                                      0.5 * (outcome.read->to - outcome.read->from), book_.days().units())
                           : QString();
  switch (outcome.state) {
    case ForetoldState::CameTrue:
      return tr("came true: %1").arg(read);
    case ForetoldState::CameFalse:
      return tr("did not come true: %1").arg(read);
    case ForetoldState::AcrossTheLine:
      return tr("%1 lies across the line: not scored").arg(read);
    case ForetoldState::SaidTooLate:
      return tr("said after it was filmed: not scored");
    case ForetoldState::NotRead:
      break;
  }
  return tr("not read yet");
}

void ForetellPage::fillSaid() {
  const DayPlan& plan = book_.days().plan();
  const ForecastOutcome outcome = book_.forecastOf(plan);
  said_->clear();
  for (std::size_t i = 0; i < plan.foretold.lines.size(); ++i) {
    const ForetoldLine& line = plan.foretold.lines[i];
    said_->addItem(QString("%1\n    %2").arg(lineInWords(line), outcomeInWords(line, outcome.lines[i])));
  }
  for (std::size_t i = 0; i < plan.foretold.orders.size(); ++i) {
    const ForetoldOrder& order = plan.foretold.orders[i];
    QStringList rigs;
    for (const RigId id : order.rigs) {
      if (const Rig* rig = plan.rack.rig(id)) rigs += QString::fromStdString(plan.rack.fullName(*rig));
    }
    const OrderOutcome& came = outcome.orders[i];
    QString words = tr("no two of them are told apart yet");
    if (came.saidTooLate) words = tr("said after it was filmed: not scored");
    if (came.pairs)
      words = tr("%1 of %2 told apart came the other way round (%3)")
                  .arg(came.pairs->reversed)
                  .arg(counted(came.pairs->apart, tr("pair"), tr("pairs")), percent(came.pairs->share()));
    said_->addItem(
        tr("%1, the highest first: %2\n    %3").arg(spokenName(order.reading), rigs.join(" > "), words));
  }
  if (said_->count() > 0) said_->setCurrentRow(0);
  enableOr(*takeBack_, said_->count() > 0, tr("Nothing was foretold yet."));
  fillScore(outcome);
}

void ForetellPage::fillScore(const ForecastOutcome& outcome) {
  if (outcome.brier) {
    const double score = *outcome.brier;
    score_->setText(
        (score < kNobodyKnows
             ? tr("Foretold better than by tossing a coin: %1, a coin has 0.25, nought is best.")
             : tr("Foretold no better than by tossing a coin: %1, a coin has 0.25, nought is best."))
            .arg(score, 0, 'f', 2));
  } else {
    score_->setText(book_.days().plan().foretold.lines.empty()
                        ? tr("Say what you expect before you film. Afterwards you see how good your eye is.")
                        : tr("Nothing that was foretold has been read yet."));
  }
  QStringList lines;
  for (const EyeAbove& eye : book_.eyeAbove()) {
    QString words = tr("%1: foretold over the line %2, came so %3 (%4)")
                        .arg(spokenName(eye.reading), percent(eye.foretold), percent(eye.came),
                             counted(eye.lines, tr("forecast"), tr("forecasts")));
    if (eye.foretold > eye.came) words += tr(": thought higher than it is");
    if (eye.foretold < eye.came) words += tr(": thought lower than it is");
    lines += words + ".";
  }
  const auto depth = apparentDepth(GramsPerKilogram(book_.days().plan().water.salinity_g_kg));
  if (depth)
    lines += tr("Straight down, depth looks %1 of what it is: 1 m looks like %2 m.")
                 .arg(percent(*depth))
                 .arg(*depth, 0, 'f', 2);
  eye_->setText(lines.join("\n"));
}

void ForetellPage::sayLine() {
  const ReadingId of = reading(*reading_);
  const ForetoldLine line{.rig = rig_->currentData().toLongLong(),
                          .reading = of,
                          .over = side_->currentIndex() == 0,
                          .line = shownUnit(of, book_.days().units()).metric(line_->value()),
                          .chance = sure_->currentData().toDouble(),
                          .said_s = now_s()};
  book_.days().edit(tr("Foretell"), [&line](DayPlan& plan) { plan.foretold.lines.push_back(line); });
}

void ForetellPage::sayOrder() {
  ForetoldOrder order{.reading = reading(*orderOf_), .said_s = now_s()};
  for (int i = 0; i < order_->count(); ++i)
    order.rigs.push_back(order_->item(i)->data(Qt::UserRole).toLongLong());
  book_.days().edit(tr("Foretell an order"),
                    [&order](DayPlan& plan) { plan.foretold.orders.push_back(order); });
}

void ForetellPage::shift(int by) {
  const int row = order_->currentRow();
  if (row < 0 || row + by < 0 || row + by >= order_->count()) return;
  order_->insertItem(row + by, order_->takeItem(row));
  order_->setCurrentRow(row + by);
}

void ForetellPage::takeBack() {
  const auto row = static_cast<std::size_t>(said_->currentRow());
  book_.days().edit(tr("Take back what was foretold"), [row](DayPlan& plan) {
    auto& [lines, orders] = plan.foretold;
    if (row < lines.size()) {
      lines.erase(lines.begin() + static_cast<std::ptrdiff_t>(row));
    } else if (row - lines.size() < orders.size()) {
      orders.erase(orders.begin() + static_cast<std::ptrdiff_t>(row - lines.size()));
    }
  });
}

}  // namespace fin::app
