// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/spread_page.h"

#include <qcustomplot.h>

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/phrases/class_words.h"
#include "app/phrases/spread_words.h"
#include "app/plots/class_plot.h"
#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "core/readings/registry.h"

namespace fin::app {
namespace {

constexpr int kReadingRole = Qt::UserRole;
constexpr int kPointPassRole = Qt::UserRole;
constexpr double kNear_px = 14.0;

QString nameOf(const std::string& rig) {
  return QString::fromStdString(rig);
}

}  // namespace

SpreadPage::SpreadPage(LineUp& lineUp, VerdictController& verdict, QWidget* parent)
    : QWidget(parent),
      lineUp_(lineUp),
      verdict_(verdict),
      choice_(new QListWidget),
      heading_(new QLabel),
      speed_(new QComboBox),
      worth_(new QDoubleSpinBox),
      headline_(new WholeLabel),
      words_(new QLabel),
      plot_(dressedPlot("spreadPlot")),
      matrix_(new PairMatrix),
      drift_(new QLabel),
      passes_(new QListWidget) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  choice_->setObjectName("readingChoice");
  choice_->setAccessibleName(tr("Reading to compare"));
  choice_->setFixedWidth(250);
  layout->addWidget(choice_);

  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  heading_->setObjectName("spreadHeading");
  setLetters(*heading_, "large");
  auto* top = new QHBoxLayout;
  top->addWidget(heading_, 1);
  auto* speedLabel = new QLabel(tr("Pulled at"));
  speedLabel->setBuddy(speed_);
  speed_->setObjectName("comparedSpeed");
  speed_->setAccessibleName(tr("Only pulls of about this speed"));
  speed_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  top->addWidget(speedLabel);
  top->addWidget(speed_);
  auto* worthLabel = new QLabel(tr("Worth having"));
  worthLabel->setBuddy(worth_);
  worth_->setObjectName("worthHaving");
  worth_->setAccessibleName(tr("By how much two rigs must differ for it to matter to you"));
  worth_->setToolTip(
      tr("By how much two rigs must differ for it to matter to you. Who surely differs by less "
         "is called alike, and no more passes are asked for."));
  worth_->setSpecialValueText(tr("not said"));
  worth_->setKeyboardTracking(false);
  worth_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  worth_->setMinimumWidth(100);
  top->addWidget(worthLabel);
  top->addWidget(worth_);
  right->addLayout(top);
  headline_->setObjectName("spreadHeadline");
  headline_->setTextFormat(Qt::PlainText);
  setLetters(*headline_, "middle");
  right->addWidget(headline_);
  plot_->yAxis->grid()->setVisible(false);
  plot_->installEventFilter(this);
  plot_->setToolTip(tr("Press a point to see its pass on the bench."));
  auto* pictures = new QHBoxLayout;
  pictures->setSpacing(18);
  pictures->addWidget(plot_, 1);
  matrix_->setObjectName("pairMatrix");
  matrix_->setAccessibleName(tr("Any two rigs: filled where they are told apart"));
  pictures->addWidget(matrix_, 0, Qt::AlignVCenter);
  right->addLayout(pictures, 3);
  words_->setObjectName("spreadWords");
  words_->setTextFormat(Qt::RichText);
  words_->setWordWrap(true);
  right->addWidget(words_);
  drift_->setObjectName("driftWords");
  drift_->setWordWrap(true);
  right->addWidget(drift_);
  passes_->setObjectName("comparedPasses");
  passes_->setAccessibleName(tr("Passes behind this comparison; Enter shows one on the bench"));
  passes_->setMinimumHeight(90);
  right->addWidget(passes_, 1);
  layout->addLayout(right, 1);

  choice_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(choice_, &QListWidget::currentItemChanged, this, &SpreadPage::showChosen);
  connect(speed_, &QComboBox::currentIndexChanged, this, &SpreadPage::showChosen);
  connect(worth_, &QDoubleSpinBox::valueChanged, this, &SpreadPage::keepWorth);
  connect(passes_, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) {
    if (const PassId pass = item->data(kPointPassRole).toLongLong(); pass != 0) emit passWanted(pass);
  });
  connect(&verdict, &VerdictController::changed, this, &SpreadPage::refresh);  // the readings too
}

void SpreadPage::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void SpreadPage::refresh() {
  const QVariant before = choice_->currentItem() ? choice_->currentItem()->data(kReadingRole) : QVariant();
  {
    const QSignalBlocker quiet(choice_);
    choice_->clear();
    const std::vector<ReadingId> readings = readingsAmong(lineUp_.passes(), ReadAs::Either);
    for (const ReadingId reading : readings) {
      auto* item = new QListWidgetItem(spokenName(reading), choice_);
      item->setData(kReadingRole, QVariant::fromValue(reading));
      if (item->data(kReadingRole) == before) choice_->setCurrentItem(item);
    }
    // The speed is what was set, not what was found out.
    if (choice_->currentItem() == nullptr && choice_->count() > 0)
      choice_->setCurrentRow(choice_->count() > 1 && readings.front() == ReadingId::TravelSpeed ? 1 : 0);
  }
  fillSpeeds();
  showChosen();
}

/// The speeds at which was pulled; passes that were not pulled have none and always count.
void SpreadPage::fillSpeeds() {
  const QSignalBlocker quiet(speed_);
  const bool first = speed_->count() < 2;
  QVariant before = speed_->currentData();
  // Pulls at one pace to begin with: the one of most rigs.
  if (const auto common = commonSpeed(lineUp_.passes(), ReadingId::TravelSpeed); first && common)
    before = *common;
  speed_->clear();
  speed_->addItem(tr("any speed"));
  for (const double speed : speedsOf(lineUp_.passes())) {
    speed_->addItem(tr("about %1").arg(spokenPull(speed, units_)), speed);
    if (before.isValid() && std::abs(before.toDouble() - speed) < 0.02 * speed)
      speed_->setCurrentIndex(speed_->count() - 1);
  }
  enableOr(*speed_, speed_->count() > 2, tr("All passes were pulled at one speed."));
}

void SpreadPage::showWorth(ReadingId reading) {
  const QSignalBlocker quiet(worth_);
  const ShownUnit unit = differenceUnit(scalingOf(reading), reading, units_);
  constexpr double kMost = 1000.0;
  worth_->setDecimals(unit.factor < 0.1 ? 3 : 1);
  worth_->setRange(0.0, kMost);
  worth_->setSuffix(unit.unit.isEmpty() ? QString() : " " + unit.unit);
  worth_->setValue(unit.factor * worthOf(verdict_.plan().worths, reading).value_or(0.0));
}

void SpreadPage::keepWorth(double shown) {
  const auto reading = choice_->currentItem()->data(kReadingRole).value<ReadingId>();
  const double factor = differenceUnit(scalingOf(reading), reading, units_).factor;
  verdict_.edit(tr("Difference worth having"), [&](VerdictPlan& plan) {
    std::erase_if(plan.worths, [&](const Worth& w) { return w.reading == reading; });
    if (shown > 0.0) plan.worths.push_back({reading, shown / factor});
  });
}

void SpreadPage::showChosen() {
  const QListWidgetItem* item = choice_->currentItem();
  plot_->setVisible(item != nullptr);
  worth_->setEnabled(item != nullptr && !isClass(item->data(kReadingRole).value<ReadingId>()));
  headline_->clear();
  matrix_->show({}, {});
  if (item != nullptr) return show(item->data(kReadingRole).value<ReadingId>());
  heading_->setText(tr("Nothing to compare yet"));
  words_->setText(tr("Measure passes on the bench; each of their readings is compared here."));
}

void SpreadPage::show(ReadingId reading) {
  plot_->clearItems();
  points_.clear();
  if (isClass(reading)) return showClasses(reading);
  const std::optional<double> speed =
      speed_->currentData().isValid() ? std::optional(speed_->currentData().toDouble()) : std::nullopt;
  const std::vector<ComparedRig> rigs = valuesOf(lineUp_.passes(), reading, speed);
  const Spread spread =
      compare(rigs, reading, {.furtherPasses = true, .worth = worthOf(verdict_.plan().worths, reading)});
  showWorth(reading);
  const ShownUnit unit = shownUnit(reading, units_);
  const QString name = spokenName(reading);
  heading_->setText(name);
  points_ = drawSpread(*plot_, spread, rigs, name, unit);
  headline_->setText(spreadHeadline(spread, reading, units_));
  showPairs(spread, reading);
  QStringList lines = spreadInWords(spread) + commonWords(lineUp_.differencesFor(reading, speed));
  for (const CamerasAgree& cameras : camerasAgree(lineUp_.passes(), reading))
    lines += spokenCameras(cameras, reading, units_);
  words_->setText(lines.join("<br>"));
  listPasses(spread, rigs, unit);
  showDrift(reading, spread.adjusted);
}

/// What was read in words: how many passes of how many, and who is told apart by it.
void SpreadPage::showClasses(ReadingId reading) {
  const ClassSpread spread = compareClasses(lineUp_.passes(), reading);
  heading_->setText(spokenName(reading));
  drawClasses(*plot_, spread, spokenName(reading));
  QStringList lines = classesInWords(spread);
  if (!spread.pairs.empty()) lines += tr("Rigs that share a letter cannot be told apart.");
  words_->setText((lines + commonWords(lineUp_.differencesFor(reading))).join("<br>"));
  passes_->clear();
  for (const RigClasses& rig : spread.rigs)
    passes_->addItem(QString("%1: %2").arg(nameOf(rig.rig), spokenClasses(rig)));
  drift_->hide();
}

void SpreadPage::showReading(ReadingId reading) {
  for (int row = 0; row < choice_->count(); ++row) {
    if (choice_->item(row)->data(kReadingRole).value<ReadingId>() == reading) choice_->setCurrentRow(row);
  }
}

/// What the rig that came again all day says of the day itself.
void SpreadPage::showDrift(ReadingId reading, const Adjusted& adjusted) {
  const auto drift = lineUp_.driftOf(reading);
  drift_->setVisible(drift.has_value());
  if (!drift) return;
  const QString slope = spokenAs(reading, drift->perHour, drift->u95, units_) + tr(" an hour");
  drift_->setText(
      !drift->seen ? tr("<b>Control rig:</b> no drift over the day beyond its scatter (%1, %2 passes).")
                         .arg(slope)
                         .arg(drift->passes)
      : !adjusted.blocks && !adjusted.hours
          ? tr("<b>Control rig:</b> drifted by %1. What was made late differs from what was made early by "
               "that alone.")
                .arg(slope)
          : tr("<b>Control rig:</b> drifted by %1. Blocks and the hour take that out of the comparison; "
               "single passes are shown as they were.")
                .arg(slope));
}

/// Any two rigs, as far as a screen has room for them.
void SpreadPage::showPairs(const Spread& spread, ReadingId reading) {
  constexpr std::size_t kMostRigs = 10;
  if (spread.rigs.size() > kMostRigs) return;
  QStringList names;
  for (const RigMean& rig : spread.rigs) names += nameOf(rig.rig);
  std::vector<PairMatrix::Cell> cells;
  for (const RigPair& pair : spread.pairs) {
    cells.push_back(
        {pair.a, pair.b, pair.apart,
         pair.apart ? shortDifference(spread, pair, reading, units_) : QString(pair.alike ? "=" : "≈"),
         spokenPair(spread, pair, reading, units_)});
  }
  matrix_->show(names, std::move(cells));
}

/// Whatever is compared: what was not equal, and what was left out.
QStringList SpreadPage::commonWords(const QStringList& differences) const {
  QStringList lines;
  for (const QString& difference : differences)
    lines += tr("<b>Not equal:</b> %1").arg(difference.toHtmlEscaped());
  if (lineUp_.fouled() > 0) {
    lines += tr("<b>Left out:</b> %1 of the day.")
                 .arg(counted(lineUp_.fouled(), tr("fouled pass"), tr("fouled passes")));
  }
  return lines;
}

void SpreadPage::listPasses(const Spread& spread, const std::vector<ComparedRig>& rigs,
                            const ShownUnit& unit) {
  passes_->clear();
  for (const RigMean& mean : spread.rigs) {
    const auto rig =
        std::find_if(rigs.begin(), rigs.end(), [&](const ComparedRig& r) { return r.rig == mean.rig; });
    for (const ComparedValue& v : rig->values) {
      const int decimals = v.u95 * unit.factor < 0.095 ? 3 : v.u95 * unit.factor < 0.95 ? 2 : 1;
      auto* item = new QListWidgetItem(QString("%1 ± %2 %3   %4")
                                           .arg(v.value * unit.factor, 0, 'f', decimals)
                                           .arg(v.u95 * unit.factor, 0, 'f', decimals)
                                           .arg(unit.unit, QString::fromStdString(v.title)),
                                       passes_);
      item->setToolTip(originOf(v.pass));
      item->setData(kPointPassRole, QVariant::fromValue<qlonglong>(v.pass.value()));
    }
  }
}

QString SpreadPage::originOf(PassId id) const {
  const auto& all = lineUp_.passes();
  const auto pass = std::find_if(all.begin(), all.end(), [id](const ComparedPass& p) { return p.id == id; });
  return pass == all.end() || !pass->from ? QString() : spokenOrigin(*pass->from);
}

PassId SpreadPage::passAt(QPointF at) const {
  PassId best;
  double nearest = kNear_px;
  for (const SpreadPoint& point : points_) {
    const double away = std::hypot(plot_->xAxis->coordToPixel(point.x) - at.x(),
                                   plot_->yAxis->coordToPixel(point.y) - at.y());
    if (away < nearest) {
      nearest = away;
      best = point.pass;
    }
  }
  return best;
}

bool SpreadPage::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::MouseButtonPress) {
    if (const PassId pass = passAt(static_cast<QMouseEvent*>(event)->position()); pass != 0)
      emit passWanted(pass);
  }
  return QWidget::eventFilter(watched, event);
}

}  // namespace fin::app
