// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/eye_page.h"

#include <qcustomplot.h>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QRandomGenerator>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <cmath>

#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/table_heads.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kSlow = 0.25;  ///< of true speed
constexpr int kEyeTick_ms = 8;
constexpr int kMostScore = 10;
constexpr double kAgrees = 0.8;
constexpr double kHardly = 0.4;

}  // namespace

EyePage::EyePage(EyeController& controller, LineUp& lineUp, QWidget* parent)
    : QWidget(parent),
      actions_(tr("Line-up, by eye"), [this] { return judging() ? QString() : tr("judge blind first"); }),
      controller_(controller),
      lineUp_(lineUp),
      studied_(lineUp),
      property_(new QComboBox),
      begin_(namedButton(tr("Judge blind"), "beginEye")),
      forget_(namedButton(tr("Forget these scores"), "forgetEye")),
      stack_(new QStackedWidget),
      judging_(nullptr),
      heading_(new QLabel),
      words_(new QLabel),
      above_(new QWidget),
      steps_(new QWidget),
      below_(new QWidget),
      result_(new QWidget),
      plot_(dressedPlot("eyePlot")),
      table_(new QTableWidget),
      which_(new QLabel),
      pane_(new InStepPane),
      scores_(new QButtonGroup(this)),
      next_(namedButton(tr("Next"), "nextEye")) {
  for (int score = 0; score <= kMostScore; ++score) {
    actions_.add(tr("Score %1").arg(score),
                 {QKeySequence(score < kMostScore ? Qt::Key_0 + score : static_cast<int>(Qt::Key_Plus))},
                 [this, score] { scores_->button(score)->click(); });
  }
  actions_.add(tr("Keep the score, next clip"), {Qt::Key_Return, Qt::Key_Enter}, [this] { take(); });
  setFocusPolicy(Qt::StrongFocus);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(8);
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("By eye, how much of"));
  label->setBuddy(property_);
  property_->setObjectName("eyeProperty");
  property_->setAccessibleName(tr("Property to judge by eye"));
  property_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  begin_->setProperty("primary", true);
  row->addWidget(label);
  row->addWidget(property_);
  row->addWidget(begin_);
  row->addStretch();
  row->addWidget(forget_);
  layout->addLayout(row);
  stack_->addWidget(buildResult());
  judging_ = buildJudging();
  stack_->addWidget(judging_);
  layout->addWidget(stack_, 1);
  timer_.setInterval(kEyeTick_ms);
  timer_.setTimerType(Qt::PreciseTimer);
  connect(&timer_, &QTimer::timeout, this, &EyePage::tick);
  connect(begin_, &QPushButton::clicked, this, [this] { judging() ? end() : begin(); });
  connect(property_, &QComboBox::currentIndexChanged, this, &EyePage::showResult);
  connect(forget_, &QPushButton::clicked, this, [this] { controller_.forget(property()); });
  connect(&controller, &EyeController::changed, this, &EyePage::refresh);
  connect(&studied_, &StudiedPasses::changed, this, [this] {
    if (judging() && pane_->pass() == nullptr) showNext();
  });
  connect(&lineUp, &LineUp::changed, this, &EyePage::refresh);
  refresh();
}

QWidget* EyePage::buildResult() {
  auto* page = new QWidget;
  auto* layout = new QVBoxLayout(page);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(above_, 1);  // what there is to say before stands in the middle
  heading_->setObjectName("eyeHeading");
  setLetters(*heading_, "large");
  heading_->setWordWrap(true);
  layout->addWidget(heading_);
  words_->setObjectName("eyeWords");
  words_->setWordWrap(true);
  layout->addWidget(words_);
  TableHeads::keepWhole(*table_);
  table_->setObjectName("eyeTable");
  table_->setAccessibleName(tr("Passes as the eye and as the reading place them"));
  table_->setColumnCount(5);
  table_->setHorizontalHeaderLabels(
      {tr("Pass"), tr("By eye, of 10"), tr("Place by eye"), tr("Reading"), tr("Place by reading")});
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  table_->verticalHeader()->hide();
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setTabKeyNavigation(false);
  plot_->setAccessibleName(tr("Scores by eye over the reading"));
  plot_->yAxis->setLabel(tr("By eye, of 10"));
  plot_->yAxis->setRange(-0.4, kMostScore + 0.4);
  auto* both = new QHBoxLayout(result_);
  both->setContentsMargins(0, 0, 0, 0);
  both->setSpacing(14);
  both->addWidget(plot_, 1);
  both->addWidget(table_, 1);
  layout->addWidget(result_, 1);
  buildSteps();
  layout->addWidget(steps_);
  layout->addWidget(below_, 2);
  return page;
}

/// What will happen, before anything was judged.
void EyePage::buildSteps() {
  auto* row = new QHBoxLayout(steps_);
  row->setContentsMargins(0, 10, 0, 0);
  row->setSpacing(14);
  const std::pair<QString, QString> steps[] = {
      {tr("1  Choose"), tr("Choose above what to judge. You see no name and no number until you are done.")},
      {tr("2  Score blind"),
       tr("Each clip is shown twice, in a shuffled order, at a quarter of its speed. Press 0 to 9, or + for "
          "10, then Enter.")},
      {tr("3  Compare"), tr("See whether your eye and the readings put the lures in the same order, and how "
                            "much your own scores vary.")}};
  for (const auto& [heading, text] : steps) {
    auto* box = card();
    auto* inside = new QVBoxLayout(box);
    inside->setContentsMargins(18, 14, 18, 16);
    inside->setSpacing(8);
    auto* name = new QLabel(heading);
    setLetters(*name, "large");
    auto* words = new QLabel(text);
    words->setWordWrap(true);
    inside->addWidget(name);
    inside->addWidget(words);
    inside->addStretch();
    row->addWidget(box, 1);
  }
}

QWidget* EyePage::buildJudging() {
  auto* page = new QWidget;
  auto* layout = new QVBoxLayout(page);
  layout->setContentsMargins(0, 0, 0, 0);
  which_->setObjectName("eyeWhich");
  setLetters(*which_, "large");
  layout->addWidget(which_);
  pane_->setBlind(true);
  layout->addWidget(pane_, 1);
  auto* row = new QHBoxLayout;
  row->addWidget(new QLabel(tr("none")));
  for (int score = 0; score <= kMostScore; ++score) {
    auto* button = namedButton(QString::number(score), "");
    button->setObjectName(QString("eyeScore%1").arg(score));
    button->setCheckable(true);
    button->setFocusPolicy(Qt::NoFocus);
    scores_->addButton(button, score);
    row->addWidget(button, 1);
  }
  row->addWidget(new QLabel(tr("most")));
  next_->setToolTip(tr("Enter"));
  next_->setFocusPolicy(Qt::NoFocus);
  row->addWidget(next_);
  layout->addLayout(row);
  connect(scores_, &QButtonGroup::idClicked, this, [this] { enableOr(*next_, true, {}); });
  connect(next_, &QPushButton::clicked, this, &EyePage::take);
  return page;
}

void EyePage::setUnits(UnitSystem units) {
  units_ = units;
  if (!judging()) showResult();
}

void EyePage::refresh() {
  if (judging()) return;  // nothing is to be learnt meanwhile
  {
    const QSignalBlocker quiet(property_);
    const QString before = property_->currentData().toString();
    property_->clear();
    for (const ReadingId reading : readingsAmong(lineUp_.passes())) {
      if (reading != ReadingId::TravelSpeed)
        property_->addItem(spokenName(reading), QVariant::fromValue(reading));
    }
    property_->setCurrentIndex(std::max(0, property_->findData(before)));
  }
  enableOr(*begin_, property_->count() > 0, tr("No pass has a number yet that could be judged."));
  showResult();
}

std::vector<PassId> EyePage::readPasses() const {
  std::vector<PassId> out;
  if (property_->count() == 0) return out;
  for (const ComparedPass& pass : lineUp_.passes()) {
    if (numberIn(pass.readings, property())) out.push_back(pass.id);
  }
  return out;
}

void EyePage::begin() {
  const std::vector<PassId> passes = readPasses();
  left_ = blindOrder(passes, QRandomGenerator::global()->generate());
  all_ = left_.size();
  if (left_.empty()) return;
  stack_->setCurrentWidget(judging_);
  begin_->setText(tr("Stop here"));
  const QString judging = tr("You are judging. Stop here first.");
  enableOr(*property_, false, judging);
  enableOr(*forget_, false, judging);
  which_->setText(tr("The clips are being opened …"));
  enableOr(*next_, false, tr("The clips are being opened."));
  setFocus();
  studied_.want(passes);  // the first one is shown when they are open
}

void EyePage::showNext() {
  const auto ready = studied_.ready();
  while (!left_.empty()) {
    const auto pass = std::find_if(ready.begin(), ready.end(),
                                   [this](const StudiedPass* p) { return p->id == left_.back(); });
    if (pass == ready.end()) {
      if (studied_.busy()) return;
      left_.pop_back();  // it cannot be opened
      continue;
    }
    if (!(*pass)->clip) {
      left_.pop_back();
      continue;
    }
    pane_->show(**pass, instantIn(**pass, Instant::RunBegins).value_or(0.0), units_);
    which_->setText(tr("Clip %1 of %2: how much %3?")
                        .arg(all_ - left_.size() + 1)
                        .arg(all_)
                        .arg(property_->currentText().toLower()));
    scores_->setExclusive(false);
    for (QAbstractButton* button : scores_->buttons()) button->setChecked(false);
    scores_->setExclusive(true);
    enableOr(*next_, false, tr("Give a score first."));
    pane_->goTo(0.0);
    wall_.restart();
    timer_.start();
    return;
  }
  end();
}

void EyePage::take() {
  if (scores_->checkedId() < 0 || left_.empty()) return;
  const auto done = controller_.add({left_.back(), property(), static_cast<double>(scores_->checkedId())});
  left_.pop_back();
  if (!done) {
    left_.clear();
    end();
    words_->setText(QString::fromStdString(done.error().message));
    return;
  }
  showNext();
}

void EyePage::end() {
  timer_.stop();
  left_.clear();
  stack_->setCurrentIndex(0);
  pane_->clear();
  studied_.want({});
  begin_->setText(tr("Judge blind"));
  enableOr(*property_, true, {});
  refresh();
}

void EyePage::tick() {
  if (pane_->pass() == nullptr || pane_->waits()) return;
  const StudiedPass& pass = *pane_->pass();
  const double length = std::max(pass.end_s() - pane_->instant_s(), pane_->frame_s());
  pane_->goTo(std::fmod(kSlow * static_cast<double>(wall_.elapsed()) / 1000.0, length));
}

void EyePage::keyPressEvent(QKeyEvent* event) {
  if (!actions_.heard(*event)) QWidget::keyPressEvent(event);
}

void EyePage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (judging() && pane_->pass() != nullptr) timer_.start();
}

void EyePage::hideEvent(QHideEvent* event) {
  timer_.stop();
  QWidget::hideEvent(event);
}

/// Where eye and reading agree, the points climb from one corner to the other.
void EyePage::draw(const EyeCheck& check) {
  const ShownUnit unit = shownUnit(property(), units_);
  QVector<double> readings, scores;
  for (const EyeAndReading& one : check.passes) {
    readings.push_back(one.reading * unit.factor);
    scores.push_back(one.score);
  }
  plot_->clearGraphs();
  QCPGraph* points = plot_->addGraph();
  points->setLineStyle(QCPGraph::lsNone);
  points->setScatterStyle({QCPScatterStyle::ssCircle, QPen(theme().accent, 1.5), theme().accentSoft, 9});
  points->setData(readings, scores);
  plot_->xAxis->setLabel(unit.unit.isEmpty() ? spokenName(property())
                                             : QString("%1, %2").arg(spokenName(property()), unit.unit));
  plot_->xAxis->rescale();
  const QCPRange range = plot_->xAxis->range();
  const double beside = std::max(0.08 * range.size(), 1e-6);
  plot_->xAxis->setRange(range.lower - beside, range.upper + beside);
  plot_->replot();
}

void EyePage::showResult() {
  const EyeCheck check = checkEye(controller_.scores(), lineUp_.passes(), property());
  enableOr(*forget_, !check.passes.empty(), tr("Nothing was scored by eye yet."));
  table_->setRowCount(static_cast<int>(check.passes.size()));
  int row = 0;
  for (const EyeAndReading& one : check.passes) {
    const auto pass = std::find_if(lineUp_.passes().begin(), lineUp_.passes().end(),
                                   [&](const ComparedPass& p) { return p.id == one.pass; });
    const Reading* reading = pass->readings.find(property());
    const QString cells[] = {QString::fromStdString(pass->title), QString::number(one.score, 'f', 1),
                             QString::number(one.eyePlace),
                             spokenAs(property(), one.reading, reading->u95.value_or(0.0), units_),
                             QString::number(one.readingPlace)};
    int column = 0;
    for (const QString& text : cells) {
      auto* item = readOnlyCell(text);
      if (std::abs(one.eyePlace - one.readingPlace) >= 2.0) item->setBackground(theme().troubleSoft);
      table_->setItem(row, column++, item);
    }
    ++row;
  }
  table_->resizeColumnsToContents();
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  result_->setVisible(!check.passes.empty());
  for (QWidget* before : {above_, steps_, below_}) before->setVisible(check.passes.empty());
  if (check.passes.empty()) {
    const std::size_t clips = readPasses().size();
    heading_->setText(clips == 0 ? tr("No pass is measured yet.")
                                 : tr("Does your eye agree with the readings?"));
    words_->setText(clips == 0 ? tr("Bring clips in and measure them on the Bench.")
                               : tr("%1 to judge, each twice.").arg(counted(clips, tr("clip"), tr("clips"))));
    return;
  }
  draw(check);
  heading_->setText(!check.agreement ? tr("Too little was judged to tell whether eye and reading agree.")
                    : check.agreement->correlation >= kAgrees
                        ? tr("Eye and reading put them in nearly the same order.")
                    : check.agreement->correlation >= kHardly ? tr("Eye and reading agree in part.")
                                                              : tr("Eye and reading hardly agree."));
  QStringList lines;
  if (check.agreement)
    lines +=
        tr("Agreement of the two orders: %1 (1 the same, 0 none, −1 reversed); chance alone gives one as "
           "strong in %2 % of cases.")
            .arg(check.agreement->correlation, 0, 'f', 2)
            .arg(100.0 * check.agreement->p, 0, 'g', 2);
  lines += check.repeatSd ? tr("The same clip, shown again, got a score that differed by about %1 of 10.")
                                .arg(std::sqrt(2.0) * *check.repeatSd, 0, 'f', 1)
                          : tr("No clip was judged twice, so how steady the eye is cannot be told.");
  lines += tr("Shaded: two places and more apart.");
  words_->setText(lines.join(" "));
}

}  // namespace fin::app
