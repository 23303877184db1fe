// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/main_window.h"

#include <QAction>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include "app/places/log/log_choice.h"
#include "app/ui/theme.h"
#include "app/ui/unit_box.h"

namespace fin::app {
namespace {

constexpr int kLookElsewhere_ms = 2000;

QString keyTable() {
  const std::pair<const char*, QString> keys[] = {
      {"Ctrl 1 … 6", QObject::tr("go to a place of the day")},
      {"Ctrl O", QObject::tr("open a clip")},
      {"Ctrl Z, Ctrl Shift Z", QObject::tr("undo, redo")},
      {"D, F", QObject::tr("one frame back, on")},
      {"S, G", QObject::tr("ten frames back, on")},
      {"Space", QObject::tr("play slowly, pause")},
      {"R", QObject::tr("place the ends of the known length")},
      {"1, 2, 3", QObject::tr("place nose, tail, the tip of a soft tail")},
      {"5, 6, 7", QObject::tr("place back, belly (head-on), the flank spot (side)")},
      {"4, H", QObject::tr("draw around the lure, around what is to be hidden")},
      {"E, X", QObject::tr("next doubtful stretch; foul from here, to here")},
      {"Arrows, Enter", QObject::tr("move the cross half a pixel (Shift: five), place it")},
      {"T, Y, U", QObject::tr("a twitch starts here, is not one, is left out")},
      {",  .", QObject::tr("the nearest twitch's start a frame earlier, later")},
      {"Shift and drag in the trace", QObject::tr("leave that stretch out of the numbers")},
      {"Q", QObject::tr("quiet from here, to here (sound)")},
      {"Esc", QObject::tr("put down what is in hand")},
      {"+, −, W", QObject::tr("nearer, further, whole picture")},
      {"Poolside: 1 … 5", QObject::tr("done, fouled, again, skip, note")},
      {"Poolside: P, T", QObject::tr("start or stop the beat, take the clip in")},
      {"Poolside: Alt and up, down", QObject::tr("move a clip to another pass")},
      {"Line-up: Enter", QObject::tr("show the chosen pass on the bench")},
      {"Line-up: 0 … 9, +, Enter", QObject::tr("score by eye (+ for 10), next clip")},
      {"Verdict: Enter", QObject::tr("show what lies behind a property in the Line-up")},
      {"F1", QObject::tr("this sheet")},
  };
  QString rows;
  for (const auto& [key, what] : keys)
    rows += QString("<tr><td><b>%1</b>&nbsp;&nbsp;</td><td>%2</td></tr>").arg(key, what);
  return "<table cellpadding='4'>" + rows + "</table>";
}

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
      lineUpModel_(new LineUp(*log_, *controller_, *day_, this)),
      verdictController_(new VerdictController(*log_, *lineUpModel_, *edits_, this)),
      eye_(new EyeController(*log_, *edits_, this)),
      ear_(new EarController(*log_, *edits_, this)),
      notice_(new NoticeBar),
      outdated_(new OutdatedBar(*lineUpModel_, *queue_)) {
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
  bars->addWidget(outdated_);
  layout->addLayout(bars);
  layout->addWidget(places_, 1);
  setCentralWidget(body);
  hearTroubles();

  bench_ = new BenchPlace({*controller_, *kept_, *lenses_, *sharing_}, *ways_);
  plan_ = new PlanPlace(*day_);
  poolside_ = new PoolsidePlace(*day_, *controller_);
  addPlace(Place::Plan, tr("Plan"), plan_);
  addPlace(Place::Poolside, tr("Poolside"), poolside_);
  addPlace(Place::Bench, tr("Bench"), bench_);
  lineUp_ = new LineUpPlace(*eye_, *ear_, *lineUpModel_);
  connect(lineUp_, &LineUpPlace::passWanted, this, [this](PassId pass) {
    controller_->select(pass);
    go(Place::Bench);
  });
  addPlace(Place::LineUp, tr("Line-up"), lineUp_);
  const auto tellCadence = [this] { bench_->setCadence(day_->plan().cadence); };
  connect(day_, &DayController::planChanged, this, tellCadence);
  tellCadence();
  verdict_ = new VerdictPlace(*verdictController_, *lineUpModel_);
  connect(verdict_, &VerdictPlace::readingWanted, this, [this](ReadingId reading) {
    go(Place::LineUp);
    lineUp_->showReading(reading);
  });
  addPlace(Place::Verdict, tr("Verdict"), verdict_);
  keepReadingsFresh();
  auto* choice = new LogChoice(QString::fromStdString(log_->file().string()), {});
  connect(choice, &LogChoice::chosen, this, &MainWindow::logChosen);
  addPlace(Place::Log, tr("Log"), choice);
  connect(bench_, &BenchPlace::logWanted, choice, &LogChoice::openAnother);
  connect(bench_, &BenchPlace::demoWanted, this, &MainWindow::demoWanted);
  const auto plan = [this] { go(Place::Plan); };
  connect(bench_, &BenchPlace::planWanted, this, plan);
  connect(poolside_, &PoolsidePlace::planWanted, this, plan);
  addActions();
  controller_->setIndexFolder(indexFolder);
  poolside_->watch().setIndexFolder(indexFolder);
  tellUnreadable();
  if (!controller_->passes().empty()) controller_->select(controller_->passes().front().id);
  go(Place::Bench);
}

MainWindow::~MainWindow() {
  // The places and desks use log and undo stack, so they go first.
  delete takeCentralWidget();
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
  connect(kept_, &KeptCalibrations::told, this, hear);
  connect(lineUpModel_, &LineUp::told, this, hear);
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
  connect(controller_, &PassController::resultChanged, this, refreshWhenSeen);
  connect(controller_, &PassController::passesChanged, this, refreshWhenSeen);
  connect(queue_, &MeasuringQueue::measured, this, refreshWhenSeen);
  connect(day_, &DayController::planChanged, this, refreshWhenSeen);
}

QWidget* MainWindow::buildStrip() {
  strip_ = new QWidget;
  strip_->setAutoFillBackground(true);
  QPalette palette = strip_->palette();
  palette.setColor(QPalette::Window, QColor(0xEA, 0xE2, 0xD2));
  strip_->setPalette(palette);
  auto* row = new QHBoxLayout(strip_);
  row->setContentsMargins(8, 0, 12, 0);
  row->setSpacing(0);
  row->addStretch();
  auto* keys = new QPushButton(tr("Keys  F1"));
  keys->setObjectName("keys");
  connect(keys, &QPushButton::clicked, this, &MainWindow::toggleKeySheet);
  row->addWidget(keys);
  row->addSpacing(6);
  auto* units = new QPushButton(tr("mm"));
  units->setObjectName("units");
  units->setCheckable(true);
  units->setToolTip(tr("Metric or inches, everywhere at once. The log always keeps metric."));
  units->setAccessibleName(tr("Switch between metric and inches"));
  connect(units, &QPushButton::toggled, this, [this, units](bool imperial) {
    units->setText(imperial ? tr("inches") : tr("mm"));
    setUnits(imperial ? UnitSystem::Imperial : UnitSystem::Metric);
  });
  row->addWidget(units);
  row->addSpacing(6);
  for (const bool undo : {true, false}) {
    auto* button = new QPushButton(undo ? tr("Undo") : tr("Redo"));
    button->setObjectName(undo ? "undo" : "redo");
    button->setEnabled(false);
    auto* action = new QAction(button->text(), this);
    action->setShortcut(undo ? QKeySequence(Qt::CTRL | Qt::Key_Z)
                             : QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z));
    addAction(action);
    connect(action, &QAction::triggered, edits_, undo ? &Edits::undo : &Edits::redo);
    connect(button, &QPushButton::clicked, edits_, undo ? &Edits::undo : &Edits::redo);
    connect(edits_, &Edits::changed, button, [this, button, undo] {
      button->setEnabled(undo ? edits_->canUndo() : edits_->canRedo());
      const QString what = undo ? edits_->undoText() : edits_->redoText();
      button->setToolTip(what.isEmpty() ? button->text() : QString("%1: %2").arg(button->text(), what));
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
  const int index = static_cast<int>(place);
  places_->setCurrentIndex(index);
  for (std::size_t i = 0; i < tabs_.size(); ++i) tabs_[i]->setChecked(static_cast<int>(i) == index);
  outdated_->setWanted(place == Place::LineUp || place == Place::Verdict);
  if (place == Place::Bench) bench_->footage().setFocus();
  if (place == Place::Poolside) poolside_->setFocus();
}

void MainWindow::addActions() {
  const auto add = [this](const QKeySequence& keys, auto&& what) {
    auto* action = new QAction(this);
    action->setShortcut(keys);
    connect(action, &QAction::triggered, this, what);
    addAction(action);
  };
  for (int i = 0; i < 6; ++i) {
    add(QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_1 + i)),
        [this, i] { go(static_cast<Place>(i)); });
  }
  add(QKeySequence(Qt::CTRL | Qt::Key_O), [this] {
    go(Place::Bench);
    bench_->chooseClip();
  });
  add(QKeySequence(Qt::Key_F1), [this] { toggleKeySheet(); });
}

void MainWindow::setUnits(UnitSystem units) {
  bench_->setUnits(units);
  setUnitsWithin(*this, units);
  day_->setUnits(units);
  lineUp_->setUnits(units);
  verdict_->setUnits(units);
}

void MainWindow::toggleKeySheet() {
  if (keySheet_ != nullptr) {
    keySheet_->deleteLater();
    keySheet_ = nullptr;
    return;
  }
  auto* sheet = new QLabel(keyTable(), this);
  sheet->setObjectName("keySheet");
  sheet->setContentsMargins(18, 14, 18, 14);
  sheet->setAutoFillBackground(true);
  sheet->setStyleSheet(QString("background: %1; border: 2px solid %2; border-radius: 8px;")
                           .arg(theme().card.name(), theme().accent.name()));
  sheet->adjustSize();
  sheet->move((width() - sheet->width()) / 2, (height() - sheet->height()) / 2);
  sheet->show();
  keySheet_ = sheet;
}

}  // namespace fin::app
