// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/main_window.h"

#include <QAction>
#include <QEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>

#include "app/places/log/log_place.h"
#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/settings.h"
#include "app/ui/theme.h"
#include "app/ui/unit_box.h"

namespace fin::app {
namespace {

constexpr int kLookElsewhere_ms = 2000;

}  // namespace

MainWindow::MainWindow(std::unique_ptr<Log> log, const std::filesystem::path& indexFolder, QWidget* parent)
    : QMainWindow(parent),
      log_(std::move(log)),
      edits_(new Edits(this)),
      controller_(new PassController(*log_, *edits_, this)),
      day_(new DayController(*log_, *edits_, this)),
      queue_(new MeasuringQueue(*log_, *controller_, this)),
      kept_(new KeptCalibrations(*controller_, *log_, *edits_, *queue_, this)),
      lenses_(new LensController(*controller_, *log_, this)),
      sharing_(new CameraSync(*controller_, this)),
      ways_(new FurtherCrossings(*controller_, this)),
      book_(new LogBook(*log_, *day_, *controller_, this)),
      water_(new WaterController(*log_, *day_, {}, this)),
      lineUpModel_(new LineUp(*log_, *controller_, *day_, this)),
      verdictController_(new VerdictController(*log_, *lineUpModel_, *edits_, this)),
      eye_(new EyeController(*log_, *edits_, this)),
      ear_(new EarController(*log_, *edits_, this)),
      look_(new LookThrough(*log_, *controller_, *day_, *queue_, this)),
      notice_(new NoticeBar),
      outdated_(new OutdatedBar(*lineUpModel_, *queue_)),
      nothingYet_(new NothingYetBar(*lineUpModel_)),
      found_(new FoundBar(*look_, *queue_)),
      edition_(new EditionBar(*day_)),
      everywhere_(tr("Everywhere")),
      worn_(&theme()) {
  const QString file = QFileInfo(QString::fromStdString(log_->file().string())).completeBaseName();
  setWindowTitle(tr("Agile Fin: %1").arg(file));
  resize(1280, 800);

  auto* body = new QWidget;
  auto* layout = new QVBoxLayout(body);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  places_ = new QStackedWidget;
  layout->addWidget(buildStrip());
  if (const std::string& why = log_->readOnlyReason(); !why.empty()) {
    auto* note = new QLabel(QString::fromStdString(why));
    note->setTextFormat(Qt::PlainText);
    note->setObjectName("readOnly");
    note->setProperty("trouble", true);
    note->setContentsMargins(16, 6, 16, 0);
    note->setWordWrap(true);
    layout->addWidget(note);
  }
  auto* bars = new QVBoxLayout;
  bars->setContentsMargins(14, 0, 14, 0);
  bars->addWidget(notice_);
  bars->addWidget(new ConditionsBar(*water_));
  bars->addWidget(found_);
  bars->addWidget(outdated_);
  bars->addWidget(edition_);
  bars->addWidget(nothingYet_);
  layout->addLayout(bars);
  layout->addWidget(places_, 1);
  setCentralWidget(body);
  hearTroubles();

  bench_ = new BenchPlace({*controller_, *kept_, *lenses_, *sharing_}, *ways_);
  plan_ = new PlanPlace(*book_, *water_);
  poolside_ = new PoolsidePlace(*day_, *controller_, *verdictController_, *water_);
  addPlace(Place::Plan, tr("Plan"), plan_);
  addPlace(Place::Poolside, tr("Poolside"), poolside_);
  addPlace(Place::Bench, tr("Bench"), bench_);
  lineUp_ = new LineUpPlace(*eye_, *ear_, *lineUpModel_, *verdictController_);
  connect(lineUp_, &LineUpPlace::passWanted, this, [this](PassId pass) {
    controller_->select(pass);
    go(Place::Bench);
  });
  addPlace(Place::LineUp, tr("Line-up"), lineUp_);
  const auto tellCadence = [this] { bench_->setCadence(day_->plan().cadence); };
  connect(day_, &DayController::planChanged, this, tellCadence);
  tellCadence();
  verdict_ = new VerdictPlace(*verdictController_, *lineUpModel_, *water_);
  connect(verdict_, &VerdictPlace::readingWanted, this, [this](ReadingId reading) {
    go(Place::LineUp);
    lineUp_->showReading(reading);
  });
  addPlace(Place::Verdict, tr("Verdict"), verdict_);
  keepReadingsFresh();
  logPlace_ = new LogPlace(*book_, *verdictController_, *water_, log_->file());
  LogChoice* choice = &logPlace_->choice();
  connect(choice, &LogChoice::chosen, this, &MainWindow::logChosen);
  connect(&logPlace_->thisLog(), &ThisLogPage::openWanted, this, &MainWindow::logChosen);
  connect(logPlace_, &LogPlace::logChanged, this, &MainWindow::reloadAll);
  connect(logPlace_, &LogPlace::passWanted, this, [this](PassId pass) {
    controller_->select(pass);
    go(Place::Bench);
  });
  addPlace(Place::Log, tr("Log"), logPlace_);
  lookPlace_ = new LookPlace(*look_);
  places_->addWidget(lookPlace_);
  connect(lookPlace_, &LookPlace::benchWanted, this, [this](PassId pass) {
    controller_->select(pass);
    go(Place::Bench);
  });
  connect(found_, &FoundBar::lookWanted, this, [this] { go(Place::LookThrough); });
  connect(bench_, &BenchPlace::logWanted, choice, &LogChoice::openAnother);
  connect(bench_, &BenchPlace::demoWanted, this, &MainWindow::demoWanted);
  const auto plan = [this] { go(Place::Plan); };
  connect(bench_, &BenchPlace::planWanted, this, plan);
  connect(poolside_, &PoolsidePlace::planWanted, this, plan);
  connect(nothingYet_, &NothingYetBar::planWanted, this, plan);
  connect(nothingYet_, &NothingYetBar::measureWanted, this, [this] {
    go(Place::Bench);
    bench_->showHow();
  });
  connect(day_, &DayController::planChanged, this, &MainWindow::showDay);
  const auto beginVerdict = [this] {
    if (water_->onTheWater()) verdict_->showCatches();
  };
  connect(day_, &DayController::dayChosen, this, beginVerdict);
  beginVerdict();
  connect(lineUpModel_, &LineUp::changed, this, &MainWindow::showDay);
  connect(controller_, &PassController::passChanged, this, [this] {
    if (controller_->current() != nullptr) day_->choose(controller_->current()->day);
  });
  showDay();
  sheet_ = new Sheet(*this);
  giveTabsRoom();
  addActions();
  connect(&Settings::all(), &Settings::unitsChanged, this, &MainWindow::showUnits);
  showUnits();
  controller_->setIndexFolder(indexFolder);
  poolside_->watch().setIndexFolder(indexFolder);
  tellUnreadable();
  for (const LoggedPass& pass : controller_->passes()) {
    if (pass.day != day_->plan().id) continue;
    controller_->select(pass.id);
    break;
  }
  if (Settings::all().measuresByItself() && log_->readOnlyReason().empty()) measureByItself();
  go(Place::Bench);
}

MainWindow::~MainWindow() {
  // The places and desks use log and undo stack, so they go first.
  delete takeCentralWidget();
  delete water_;
  delete book_;
  delete look_;
  delete ear_;
  delete eye_;
  delete verdictController_;
  delete lineUpModel_;
  delete ways_;
  delete sharing_;
  delete lenses_;
  delete kept_;
  delete queue_;
  delete day_;
  delete controller_;
}

/// What went wrong is said above all places, wherever it did.
void MainWindow::hearTroubles() {
  const auto hear = [this](const QString& message, bool trouble) {
    if (trouble) notice_->say(message);
  };
  connect(edits_, &Edits::told, this, hear);
  connect(day_, &DayController::told, this, hear);
  connect(queue_, &MeasuringQueue::told, this, hear);
  connect(controller_, &PassController::readAnewWanted, queue_,
          [this](const std::vector<PassId>& passes) { queue_->add(passes, Depth::Read); });
  connect(kept_, &KeptCalibrations::told, this, hear);
  connect(look_, &LookThrough::told, this, hear);
  connect(lineUpModel_, &LineUp::told, this, hear);
  connect(book_, &LogBook::told, this, hear);
  connect(verdictController_, &VerdictController::told, this, hear);
  connect(controller_, &PassController::told, this, [this, hear](const QString& message, bool trouble) {
    if (places_->currentIndex() != static_cast<int>(Place::Bench)) hear(message, trouble);
  });
  connect(edits_, &Edits::movedOn, this, &MainWindow::reloadAll, Qt::QueuedConnection);
  connect(&elsewhere_, &QTimer::timeout, this, [this] {
    if (log_->changedElsewhere()) reloadAll();
  });
  elsewhere_.start(kLookElsewhere_ms);
}

/// Another window or program has written into the log.
void MainWindow::reloadAll() {
  (void)log_->changedElsewhere();
  day_->reload();
  controller_->reload();
  kept_->reload();
  verdictController_->reload();
  tellUnreadable();
}

void MainWindow::tellUnreadable() {
  QStringList rows;
  for (const auto& [what, why] : log_->unreadable())
    rows += QString("%1 (%2)").arg(QString::fromStdString(what), QString::fromStdString(why));
  if (rows.isEmpty()) return;
  notice_->say(
      tr("This log holds something that cannot be read. It is left as it is, and the rest works: %1.")
          .arg(rows.join("; ")));
}

/// The comparing places gather the readings anew when something changes while they are looked at; else when
/// they are next shown.
void MainWindow::keepReadingsFresh() {
  const auto refreshWhenSeen = [this] {
    if (lineUp_->isVisible() || verdict_->isVisible()) lineUpModel_->refresh();
  };
  const auto refreshAtTheWater = [this] {
    if (poolside_->isVisible()) lineUpModel_->refresh();
  };
  connect(controller_, &PassController::resultChanged, this, refreshWhenSeen);
  connect(controller_, &PassController::passesChanged, this, refreshWhenSeen);
  connect(queue_, &MeasuringQueue::measured, this, refreshWhenSeen);
  connect(controller_, &PassController::passesChanged, this, refreshAtTheWater);
  connect(queue_, &MeasuringQueue::measured, this, refreshAtTheWater);
  connect(day_, &DayController::planChanged, this, refreshWhenSeen);
  for (const auto changed : {&PassController::resultChanged, &PassController::passesChanged})
    connect(controller_, changed, water_, &WaterController::readAnew);
  connect(queue_, &MeasuringQueue::measured, water_, &WaterController::readAnew);
}

/// Clips that were taken in for a planned pass are measured as they come; those of an earlier sitting that
/// was stopped, now.
void MainWindow::measureByItself() {
  const auto add = [this] {
    std::vector<PassId> wanted;
    for (const PassId id : queue_->unmarked()) {
      const LoggedPass* pass = controller_->passWith(id);
      if (pass == nullptr || !pass->planned || !tried_.insert(id).second) continue;
      const auto earlier = log_->readingsOf(id);
      if (earlier && *earlier == nullptr) wanted.push_back(id);
    }
    if (!wanted.empty()) queue_->add(wanted, Depth::Find);
  };
  connect(controller_, &PassController::passesChanged, this, add);
  add();
}

QWidget* MainWindow::buildStrip() {
  strip_ = new QWidget;
  strip_->setAttribute(Qt::WA_StyledBackground);
  setLook(*strip_, "strip", true);
  auto* row = new QHBoxLayout(strip_);
  row->setContentsMargins(8, 0, 12, 0);
  row->setSpacing(0);
  row->addStretch();
  dayButton_ = namedButton({}, "days");
  dayButton_->setToolTip(tr("The days of this log. Ctrl D"));
  connect(dayButton_, &QPushButton::clicked, this, &MainWindow::showDays);
  row->addWidget(dayButton_);
  row->addSpacing(6);
  auto* help = namedButton(tr("Help  F1"), "help");
  help->setToolTip(tr("The guide, at the page for what is in front of you"));
  connect(help, &QPushButton::clicked, this, &MainWindow::showGuide);
  row->addWidget(help);
  row->addSpacing(6);
  auto* keys = namedButton(tr("Keys"), "keys");
  keys->setToolTip(tr("What you can do, and its keys. F2"));
  connect(keys, &QPushButton::clicked, this, &MainWindow::toggleKeySheet);
  row->addWidget(keys);
  row->addSpacing(6);
  auto* settings = namedButton(tr("Settings"), "settings");
  connect(settings, &QPushButton::clicked, this, &MainWindow::showSettings);
  row->addWidget(settings);
  row->addSpacing(6);
  units_ = namedButton({}, "units");
  units_->setCheckable(true);
  units_->setToolTip(tr("Metric or US units, everywhere at once. The log always keeps metric."));
  units_->setAccessibleName(tr("Switch between metric and US units"));
  connect(units_, &QPushButton::clicked, this, &MainWindow::switchUnits);
  row->addWidget(units_);
  row->addSpacing(6);
  for (const bool undo : {true, false}) {
    auto* button = new QPushButton(undo ? tr("Undo") : tr("Redo"));
    button->setObjectName(undo ? "undo" : "redo");
    enableOr(*button, false, undo ? tr("Nothing to undo.") : tr("Nothing to redo."));
    connect(button, &QPushButton::clicked, edits_, undo ? &Edits::undo : &Edits::redo);
    connect(edits_, &Edits::changed, button, [this, button, undo] {
      const QString what = undo ? edits_->undoText() : edits_->redoText();
      const bool any = undo ? edits_->canUndo() : edits_->canRedo();
      enableOr(*button, any, undo ? tr("Nothing to undo.") : tr("Nothing to redo."));
      if (any) button->setToolTip(QString("%1: %2").arg(button->text(), what));
    });
    row->addWidget(button);
    row->addSpacing(4);
  }
  return strip_;
}

void MainWindow::addPlace(Place place, const QString& name, QWidget* widget) {
  places_->addWidget(widget);
  auto* tab = new QPushButton(name);
  tab->setProperty("place", true);
  tab->setCheckable(true);
  tab->setObjectName("place" + QString::number(static_cast<int>(place)));
  tab->setToolTip(tr("Ctrl %1").arg(static_cast<int>(place) + 1));
  connect(tab, &QPushButton::clicked, this, [this, place] { go(place); });
  static_cast<QHBoxLayout*>(strip_->layout())->insertWidget(static_cast<int>(tabs_.size()), tab);
  tabs_.push_back(tab);
}

void MainWindow::go(Place place) {
  if (sheet_ != nullptr) sheet_->away();
  const int index = static_cast<int>(place);
  places_->setCurrentIndex(index);
  for (std::size_t i = 0; i < tabs_.size(); ++i) tabs_[i]->setChecked(static_cast<int>(i) == index);
  wantBars();
  if (place == Place::Bench) bench_->footage().setFocus();
  if (place == Place::Poolside) {
    lineUpModel_->refresh();
    if (water_->onTheWater()) {
      poolside_->running().setFocus();
    } else {
      poolside_->setFocus();
    }
  }
  found_->setLooking(place == Place::LookThrough);
  if (place == Place::LookThrough) {
    look_->begin();
    lookPlace_->setFocus();
  }
}

void MainWindow::addActions() {
  for (int i = 0; i < static_cast<int>(tabs_.size()); ++i) {
    everywhere_.add(tr("Go to %1").arg(tabs_[static_cast<std::size_t>(i)]->text()),
                    {QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_1 + i))},
                    [this, i] { go(static_cast<Place>(i)); });
  }
  everywhere_
      .add(tr("Open a clip"), {QKeySequence(Qt::CTRL | Qt::Key_O)},
           [this] {
             go(Place::Bench);
             bench_->chooseClip();
           })
      .add(tr("Show me how to measure a clip"), {},
           [this] {
             go(Place::Bench);
             bench_->showHow();
           })
      .add(tr("Look through what was measured by itself"), {QKeySequence(Qt::CTRL | Qt::Key_L)},
           [this] { go(Place::LookThrough); })
      .add(tr("Undo"), {QKeySequence(Qt::CTRL | Qt::Key_Z)}, [this] { edits_->undo(); })
      .add(tr("Redo"), {QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z)}, [this] { edits_->redo(); })
      .add(tr("Switch between metric and US units"), {}, [this] { switchUnits(); })
      .add(tr("Settings"), {}, [this] { showSettings(); })
      .add(tr("The days of this log"), {QKeySequence(Qt::CTRL | Qt::Key_D)}, [this] { showDays(); })
      .add(tr("The guide, at this page"), {QKeySequence(Qt::Key_F1)}, [this] { showGuide(); })
      .add(tr("What you can do, and its keys"), {QKeySequence(Qt::Key_F2)}, [this] { toggleKeySheet(); })
      .tell(tr("Show the chosen pass on the bench (Line-up)"), tr("Enter"))
      .tell(tr("Show what lies behind a property (Verdict)"), tr("Enter"));
  for (const Action& one : everywhere_.actions()) {
    if (one.keys.empty()) continue;
    auto* action = new QAction(one.what, this);
    action->setShortcuts({one.keys.begin(), one.keys.end()});
    connect(action, &QAction::triggered, this, one.run);
    addAction(action);
  }
}

void MainWindow::showUnits() {
  const UnitSystem units = Settings::all().units();
  const bool us = units == UnitSystem::Imperial;
  units_->setChecked(us);
  units_->setText(us ? tr("inches") : tr("mm"));
  bench_->setUnits(units);
  setUnitsWithin(*this, units);
  day_->setUnits(units);
  lineUp_->setUnits(units);
  verdict_->setUnits(units);
  logPlace_->setUnits(units);
  lookPlace_->setUnits(units);
  emit water_->changed();
}

void MainWindow::switchUnits() {
  const bool us = Settings::all().units() == UnitSystem::Imperial;
  Settings::all().setUnits(us ? UnitSystem::Metric : UnitSystem::Imperial);
}

/// What stands above the places that compare. On the water catches and box need no pass of that day.
void MainWindow::wantBars() {
  const auto place = static_cast<Place>(places_->currentIndex());
  outdated_->setWanted(place == Place::LineUp || place == Place::Verdict);
  nothingYet_->setWanted(place == Place::LineUp || (place == Place::Verdict && !water_->onTheWater()));
}

/// The day in the strip, with how many are compared beside it.
void MainWindow::showDay() {
  constexpr int kWidest_px = 200;
  controller_->setDay(day_->plan().id);
  wantBars();
  QString text = day_->dayName(day_->plan().id);
  const auto beside = static_cast<int>(lineUpModel_->besides().size());
  const QString more = beside > 0 ? tr(" and %1 more").arg(beside) : QString();
  text = dayButton_->fontMetrics().elidedText(text, Qt::ElideRight, kWidest_px);
  dayButton_->setText(text + more);
  dayButton_->setAccessibleName(tr("Day: %1%2").arg(day_->dayName(day_->plan().id), more));
}

/// A place's name is heavier while one is there, and must not be cut then.
void MainWindow::giveTabsRoom() {
  constexpr int kAtTheSides_px = 32;
  for (QPushButton* tab : tabs_) {
    QFont heavy = tab->font();
    heavy.setWeight(QFont::DemiBold);
    tab->setMinimumWidth(QFontMetrics(heavy).horizontalAdvance(tab->text()) + kAtTheSides_px);
  }
}

/// Plots are no part of the style that the program wears.
void MainWindow::changeEvent(QEvent* event) {
  QMainWindow::changeEvent(event);
  if (event->type() == QEvent::StyleChange || event->type() == QEvent::FontChange) giveTabsRoom();
  if (event->type() != QEvent::StyleChange || worn_ == &theme()) return;
  const Theme* before = worn_;
  worn_ = &theme();
  dyePlots(*this, *before, *worn_);
}

bool MainWindow::settled() const {
  const FootageView& footage = bench_->footage();
  const bool shown =
      !controller_->clip() || (footage.hasPicture() && footage.shownFrame() == controller_->frame());
  return shown && !controller_->busy() && queue_->left() == 0 &&
         (look_->current() == nullptr || look_->shown() != nullptr) && !sharing_->aligning() &&
         !lenses_->solving() && !verdict_->report().busy() && lineUp_->inStep().settled() &&
         !lineUp_->ear().busy();
}

}  // namespace fin::app
