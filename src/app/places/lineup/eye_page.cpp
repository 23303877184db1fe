// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/eye_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QRandomGenerator>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <cmath>

#include "app/ui/pieces.h"
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
  heading_->setObjectName("eyeHeading");
  setLetters(*heading_, "large");
  heading_->setWordWrap(true);
  layout->addWidget(heading_);
  words_->setObjectName("eyeWords");
  words_->setWordWrap(true);
  layout->addWidget(words_);
  table_->setObjectName("eyeTable");
  table_->setAccessibleName(tr("Passes as the eye and as the reading place them"));
  table_->setColumnCount(5);
  table_->setHorizontalHeaderLabels(
      {tr("Pass"), tr("By eye, of 10"), tr("Place by eye"), tr("Reading"), tr("Place by reading")});
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  table_->verticalHeader()->hide();
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setTabKeyNavigation(false);
  layout->addWidget(table_, 100);
  layout->addStretch(1);  // keeps the words at the top where there is no table
  return page;
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

void EyePage::begin() {
  std::vector<PassId> passes;
  for (const ComparedPass& pass : lineUp_.passes()) {
    if (numberIn(pass.readings, property())) passes.push_back(pass.id);
  }
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
  table_->setVisible(!check.passes.empty());
  if (check.passes.empty()) {
    heading_->setText(tr("Nothing was judged by eye here yet."));
    words_->setText(property_->count() == 0
                        ? tr("No pass is measured yet: bring clips in and measure them on the Bench.")
                        : tr("Every clip that was read is shown twice, without its name and in a drawn "
                             "order. Give 0 to 10 "
                             "before you look at the readings; then see how far your eye goes with them."));
    return;
  }
  heading_->setText(
      !check.rankCorrelation              ? tr("Too little was judged to tell whether eye and reading agree.")
      : *check.rankCorrelation >= kAgrees ? tr("Eye and reading put them in nearly the same order.")
      : *check.rankCorrelation >= kHardly ? tr("Eye and reading agree in part.")
                                          : tr("Eye and reading hardly agree."));
  QStringList lines;
  if (check.rankCorrelation)
    lines += tr("Agreement of the two orders: %1 (1 the same, 0 none, −1 reversed).")
                 .arg(*check.rankCorrelation, 0, 'f', 2);
  lines += check.repeatSd ? tr("The same clip, shown again, got a score that differed by about %1 of 10.")
                                .arg(std::sqrt(2.0) * *check.repeatSd, 0, 'f', 1)
                          : tr("No clip was judged twice, so how steady the eye is cannot be told.");
  lines += tr("Shaded: two places and more apart.");
  words_->setText(lines.join(" "));
}

}  // namespace fin::app
