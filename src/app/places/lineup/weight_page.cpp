// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/weight_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <array>

#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kDepths_mm[] = {500.0, 1000.0, 2000.0, 3000.0, 5000.0};
constexpr double kUsualWeightU95_g = 0.1;
constexpr std::size_t kBody = 3;  // its place among the weights

}  // namespace

WeightPage::WeightPage(LineUp& lineUp, QWidget* parent)
    : QWidget(parent),
      lineUp_(lineUp),
      rig_(new QComboBox),
      measured_(new QLabel),
      answer_(new QLabel),
      words_(new QLabel),
      countdown_(new QTableWidget) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(18);
  layout->addWidget(buildForm());
  auto* right = new QVBoxLayout;
  answer_->setObjectName("weightAnswer");
  setLetters(*answer_, "large");
  answer_->setWordWrap(true);
  right->addWidget(answer_);
  words_->setObjectName("weightWords");
  words_->setTextFormat(Qt::RichText);
  words_->setWordWrap(true);
  right->addWidget(words_);
  right->addSpacing(8);
  countdownHeading_ = headingLabel(tr("Count down to a depth"));
  right->addWidget(countdownHeading_);
  TableHeads::keepWhole(*countdown_);
  countdown_->setObjectName("countdown");
  countdown_->setAccessibleName(tr("Seconds down to each depth"));
  countdown_->setColumnCount(3);
  countdown_->verticalHeader()->hide();
  countdown_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  countdown_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  countdown_->setTabKeyNavigation(false);
  right->addWidget(countdown_, 1);
  right->addStretch();
  layout->addLayout(right, 1);
  connect(&lineUp, &LineUp::changed, this, &WeightPage::refresh);
}

UnitBox* WeightPage::addBox(QGridLayout& grid, int row, int column, const QString& name,
                            const char* objectName, const char* unit, UnitBox::Range range) {
  auto* box = new UnitBox(name, unit, range);
  box->setObjectName(objectName);
  grid.addWidget(box, row, column);
  connect(box, &UnitBox::edited, this, &WeightPage::answer);
  return box;
}

QWidget* WeightPage::buildForm() {
  auto* form = card();
  form->setFixedWidth(480);
  auto* layout = new QVBoxLayout(form);
  layout->setContentsMargins(14, 12, 14, 12);
  rig_->setObjectName("weightRig");
  rig_->setAccessibleName(tr("Rig whose fall was measured"));
  layout->addWidget(headingLabel(tr("The fall that was measured")));
  layout->addWidget(rig_);
  measured_->setObjectName("measuredFall");
  measured_->setWordWrap(true);
  layout->addWidget(measured_);
  amounts_ = new QWidget;
  auto* inForm = new QVBoxLayout(amounts_);
  inForm->setContentsMargins(0, 0, 0, 0);
  auto* grid = new QGridLayout;
  grid->addWidget(headingLabel(tr("As filmed")), 0, 1);
  grid->addWidget(headingLabel(tr("Changed to")), 0, 2);
  struct Line {
    QString label;
    const char* before;
    const char* after;
    double least;
  };
  const Line lines[] = {{tr("Head"), "headBefore", "headAfter", 0.0},
                        {tr("Hooks"), "hookBefore", "hookAfter", 0.0},
                        {tr("Insert"), "insertBefore", "insertAfter", 0.0},
                        {tr("Body, in water"), "bodyBefore", "bodyAfter", -1e4}};
  for (int i = 0; i < 4; ++i) {
    const Line& line = lines[i];
    grid->addWidget(new QLabel(line.label), i + 1, 0);
    const auto place = static_cast<std::size_t>(i);
    before_[place] =
        addBox(*grid, i + 1, 1, tr("%1 as filmed").arg(line.label), line.before, "g", {line.least, 1e4, 2});
    after_[place] =
        addBox(*grid, i + 1, 2, tr("%1 changed to").arg(line.label), line.after, "g", {line.least, 1e4, 2});
  }
  grid->addWidget(new QLabel(tr("Salt")), 5, 0);
  salinity_ = addBox(*grid, 5, 2, tr("Salt in the other water"), "saltAfter", "g/kg", {0.0, 42.0, 1});
  grid->addWidget(new QLabel(tr("Temperature")), 6, 0);
  temperature_ =
      addBox(*grid, 6, 2, tr("Temperature of the other water"), "temperatureAfter", "°C", {-2.0, 40.0, 1});
  grid->addWidget(new QLabel(tr("Should fall at")), 7, 0);
  wanted_ = addBox(*grid, 7, 2, tr("Wanted fall rate"), "rateWanted", "mm/s", {0.0, 1e4, 0});
  wanted_->show(150.0);
  inForm->addLayout(grid);
  inForm->addWidget(
      faintLabel(tr("Weigh the body hung from a thread in the water, without head and hooks; what pulls "
                    "upwards counts below zero. Heads are taken as lead, inserts as tungsten, hooks as "
                    "steel.")));
  fromHeads_ = faintLabel({});
  fromHeads_->setObjectName("bodyFromHeads");
  inForm->addWidget(fromHeads_);
  useBody_ = namedButton({}, "useBodyFromHeads");
  inForm->addWidget(useBody_, 0, Qt::AlignLeft);
  connect(useBody_, &QPushButton::clicked, this, [this] {
    for (const Weights* boxes : {&before_, &after_}) (*boxes)[kBody]->show(foundBody_g_);
    answer();
  });
  layout->addWidget(amounts_);
  layout->addStretch();
  connect(rig_, &QComboBox::currentIndexChanged, this, &WeightPage::choose);
  return form;
}

void WeightPage::setUnits(UnitSystem units) {
  units_ = units;
  answer();
}

QString WeightPage::speed(double mm_s, double u95) const {
  const SpokenValue v = spoken({ReadingId::FallRate, mm_s, "mm/s", u95, 1.0}, units_);
  return QString("%1 %2 %3").arg(v.value, v.uncertainty, v.unit);
}

void WeightPage::refresh() {
  falls_ = fallsAmong(lineUp_.passes(), [this](const ComparedPass& pass) { return lineUp_.rigOf(pass); });
  const QString before = rig_->currentText();
  {
    const QSignalBlocker quiet(rig_);
    rig_->clear();
    for (const MeasuredFall& fall : falls_) rig_->addItem(QString::fromStdString(fall.rig));
    rig_->setCurrentIndex(std::max(rig_->findText(before), falls_.empty() ? -1 : 0));
  }
  if (rig_->currentText() != before || falls_.empty()) {
    choose();
  } else {
    answer();
  }
}

const MeasuredFall* WeightPage::chosen() const {
  const int i = rig_->currentIndex();
  return i >= 0 && i < static_cast<int>(falls_.size()) ? &falls_[static_cast<std::size_t>(i)] : nullptr;
}

/// Fills the form with what is known of the rig.
void WeightPage::choose() {
  const MeasuredFall* fall = chosen();
  if (fall != nullptr) {
    const Rig* rig = fall->rigId ? lineUp_.day().plan().rack.rig(*fall->rigId) : nullptr;
    // Another rig of the same model has the same body.
    const ModelId model = rig == nullptr ? ModelId() : rig->model;
    const double body = model == model_ ? before_[kBody]->metric() : 0.0;
    model_ = model;
    const RigWeights known = rig == nullptr ? RigWeights{} : weightsOf(*rig, Grams(body));
    const double weights[] = {known.head.value(), known.hook.value(), known.insert.value(),
                              known.bodyInWater.value()};
    for (std::size_t i = 0; i < before_.size(); ++i) {
      before_[i]->show(weights[i]);
      after_[i]->show(weights[i]);
    }
    const WaterState water = lineUp_.day().plan().water.state();
    salinity_->show(water.salinity.value());
    temperature_->show(water.temperature.value());
  }
  answer();
}

WeightQuestion WeightPage::question(const MeasuredFall& fall) const {
  const auto weights = [](const Weights& boxes) {
    RigWeights out;
    out.head = Grams(boxes[0]->metric());
    out.hook = Grams(boxes[1]->metric());
    out.insert = Grams(boxes[2]->metric());
    out.bodyInWater = Grams(boxes[3]->metric());
    return out;
  };
  WeightQuestion out;
  out.fallRate = fall.rate;
  out.measured = weights(before_);
  out.changed = weights(after_);
  out.measuredWater = lineUp_.day().plan().water.state();
  out.changedWater = {GramsPerKilogram(salinity_->metric()), Celsius(temperature_->metric())};
  out.weightU95 = Grams(kUsualWeightU95_g);
  return out;
}

void WeightPage::answer() {
  const MeasuredFall* fall = chosen();
  for (QWidget* w : {static_cast<QWidget*>(rig_), amounts_, static_cast<QWidget*>(countdownHeading_),
                     static_cast<QWidget*>(countdown_)})
    w->setVisible(fall != nullptr);
  countdown_->setRowCount(0);
  setLook(*answer_, "trouble", false);
  if (fall == nullptr) {
    measured_->setText(
        tr("No fall was measured yet. Film a rig from the side while it sinks freely, and follow "
           "it on the bench."));
    answer_->setText(tr("What would another weight do?"));
    words_->setText({});
    return;
  }
  measured_->setText(
      tr("%1, %2%3")
          .arg(speed(fall->rate.value, fall->rate.u95),
               counted(static_cast<std::size_t>(fall->rate.n), tr("pass"), tr("passes")),
               fall->mode.empty() ? QString() : tr("; way of falling: %1").arg(fall->mode.c_str())));
  weighByHeads();
  const WeightQuestion asked = question(*fall);
  const auto answered = changeWeight(asked);
  if (!answered) {
    setLook(*answer_, "trouble", true);
    answer_->setText(QString::fromStdString(answered.error().message));
    words_->setText({});
    return;
  }
  const double rate = answered->rate.value;
  const QString amount = speed(std::abs(rate), answered->rate.u95);
  answer_->setText(answered->state == BuoyancyState::Sinks ? tr("Would fall at %1").arg(amount)
                   : answered->state == BuoyancyState::Rises
                       ? tr("Would rise at %1").arg(amount)
                       : tr("Would hang still, within %1").arg(spokenSpeed(asked.holdBand.value(), units_)));
  QStringList lines;
  lines += tr("In the water it weighs %1 as filmed and %2 changed, known to %3.")
               .arg(spokenAmount(answered->inWaterBefore.value(), "g", 2, units_),
                    spokenAmount(answered->inWaterAfter.value(), "g", 2, units_),
                    spokenAmount(asked.weightU95.value(), "g", 1, units_));
  if (std::abs(rate) - answered->rate.u95 < asked.holdBand.value() && answered->state != BuoyancyState::Holds)
    lines += tr("So near to hanging still, the smallest weight decides: try it.");
  lines += wantedHead(asked);
  lines += hangs(asked, *answered);
  lines += kicks();
  if (const QString miss = heldAgainst(*fall); !miss.isEmpty()) lines += miss;
  lines +=
      tr("Holds as long as it falls in the same attitude and in the same way; a lighter head may turn a "
         "straight fall into a glide.");
  lines.removeAll(QString());
  words_->setText(lines.join("<br>"));
  fillCountdown(*answered);
}

QString WeightPage::wantedHead(const WeightQuestion& asked) const {
  const auto head = headForRate(asked, MillimetresPerSecond(wanted_->metric()));
  const QString wanted = spokenSpeed(wanted_->metric(), units_);
  if (!head)
    return tr("<b>To fall at %1:</b> %2.")
        .arg(wanted, QString::fromStdString(head.error().message).toHtmlEscaped());
  return tr("<b>To fall at %1</b> it needs a head of %2, the rest as changed.")
      .arg(wanted, spokenAmount(head->value(), "g", 1, units_));
}

std::vector<HeadFall> WeightPage::heads() const {
  const DayPlan& plan = lineUp_.day().plan();
  return headsOf(falls_, model_, plan.rack, plan.water.state());
}

/// What the falls of the model on its heads say the body weighs, to be taken at a key.
void WeightPage::weighByHeads() {
  const std::vector<HeadFall> falls = heads();
  fromHeads_->setVisible(!falls.empty());
  const auto body = bodyWeight(falls);
  useBody_->setVisible(body.has_value());
  if (!body) {
    fromHeads_->setText(
        tr("Without scales, from falls on two heads: %1.").arg(QString::fromStdString(body.error().message)));
    return;
  }
  foundBody_g_ = body->value;
  const QString weight = spokenAs(ReadingId::BodyWeight, body->value, body->u95, units_);
  fromHeads_->setText(tr("Without scales, from its falls on %1: the body weighs %2 in the water.")
                          .arg(counted(falls.size(), tr("head"), tr("heads")), weight));
  useBody_->setText(tr("Take %1").arg(spokenAmount(body->value, "g", 2, units_)));
}

/// In which waters it would hang; nothing where it is not made to and would not.
QString WeightPage::hangs(const WeightQuestion& asked, const WeightAnswer& answered) const {
  const Model* model = lineUp_.day().plan().rack.model(model_);
  if (model == nullptr) return {};
  const auto lure = hangingLure(*model, asked, answered);
  const auto window =
      lure ? hangWindow(*lure, asked.changedWater.salinity, asked.holdBand) : tl::unexpected(lure.error());
  const QString salt = spokenAmount(asked.changedWater.salinity.value(), "g/kg", 0, units_);
  if (window)
    return tr("<b>Hangs</b> within %1 from %2 to %3 (%4) in water of %5 salt%6.")
        .arg(spokenSpeed(asked.holdBand.value(), units_), spokenAmount(window->from.value, "°C", 1, units_),
             spokenAmount(window->to.value, "°C", 1, units_), hangDoubt(*window), salt,
             window->from.grade == Grade::Poor ? tr("; so near its edge that it may hang nowhere")
                                               : QString());
  if (model->buoyancy != Buoyancy::Hangs) return {};
  return tr("<b>Hangs:</b> %1.").arg(QString::fromStdString(window.error().message).toHtmlEscaped());
}

QString WeightPage::hangDoubt(const HangWindow& window) const {
  const double factor = shownUnit("°C", units_).factor;
  return tr("± %1 and ± %2").arg(window.from.u95 * factor, 0, 'f', 1).arg(window.to.u95 * factor, 0, 'f', 1);
}

/// The lightest head on which the tail kicks on the way down.
QString WeightPage::kicks() const {
  const std::vector<HeadFall> falls = heads();
  if (falls.size() < 3 ||
      std::none_of(falls.begin(), falls.end(), [](const HeadFall& f) { return f.kick_deg.has_value(); }))
    return {};
  const auto onset = kickOnset(falls);
  if (!onset)
    return tr("<b>Kick on the way down:</b> %1.")
        .arg(QString::fromStdString(onset.error().message).toHtmlEscaped());
  const QString rate = speed(onset->rate.value, onset->rate.u95);
  if (!onset->head) return tr("<b>The tail kicks</b> on the way down from %1 on.").arg(rate);
  return tr("<b>The tail kicks</b> on the way down from %1 on: from a head of %2 in the water.")
      .arg(rate, spokenAs(ReadingId::KickHead, onset->head->value, onset->head->u95, units_));
}

/// The same model on other rigs that were measured: what would have been predicted, and by how much it
/// misses.
QString WeightPage::heldAgainst(const MeasuredFall& fall) const {
  QStringList out;
  for (const FallCheck& check : checkAgainst(falls_, fall, question(fall), lineUp_.day().plan().rack)) {
    QString line = tr("<b>Held against %1:</b> predicted %2, measured %3: %4.")
                       .arg(QString::fromStdString(check.rig).toHtmlEscaped(),
                            speed(check.predicted.value, check.predicted.u95),
                            speed(check.measured.value, check.measured.u95),
                            check.within ? tr("within the uncertainty of both")
                                         : tr("a miss of %1 %").arg(100.0 * check.miss, 0, 'f', 0));
    if (!check.otherMode.empty())
      line += tr(" It falls in another way there (%1).")
                  .arg(QString::fromStdString(check.otherMode).toHtmlEscaped());
    out += line;
  }
  return out.join("<br>");
}

void WeightPage::fillCountdown(const WeightAnswer& answered) {
  const ShownUnit length = shownUnit("mm", units_);
  const bool metric = units_ == UnitSystem::Metric;
  countdown_->setHorizontalHeaderLabels(
      {metric ? tr("Depth, m") : tr("Depth, ft"), tr("As filmed, s"), tr("Changed, s")});
  const MeasuredFall* fall = chosen();
  countdown_->setRowCount(static_cast<int>(std::size(kDepths_mm)));
  for (int row = 0; row < countdown_->rowCount(); ++row) {
    const double depth = metric ? kDepths_mm[row] : std::round(kDepths_mm[row] / 304.8) * 304.8;
    const double shown = metric ? depth * 1e-3 : depth * length.factor / 12.0;
    // The same body comes up to speed over the same way, whatever pulls it down.
    const auto seconds = [&](double rate) {
      const Seconds time = countdown(Millimetres(depth), MillimetresPerSecond(rate),
                                     fall->timeConstant * (fall->rate.value / rate));
      return QString::number(time.value(), 'f', 1);
    };
    const QString cells[] = {
        QString::number(shown, 'f', metric ? 1 : 0), seconds(fall->rate.value),
        answered.state == BuoyancyState::Sinks ? seconds(answered.rate.value) : tr("never")};
    for (int column = 0; column < 3; ++column) {
      auto* item = new QTableWidgetItem(cells[column]);
      item->setTextAlignment(Qt::AlignCenter);
      countdown_->setItem(row, column, item);
    }
  }
}

}  // namespace fin::app
