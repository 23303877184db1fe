// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/in_step_page.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/phrases/publish_words.h"
#include "app/ui/files.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kTick_ms = 4;
constexpr double kScreen_s = 0.016;  ///< shorter than this no picture can be seen
constexpr double kFallenBehind_s = 0.25;
constexpr int kStripWidth_px = 420;
constexpr int kStripWords_px = 34;
constexpr int kByHand = -1;

}  // namespace

InStepPage::InStepPage(LineUp& lineUp, StudiedPasses& studied, const VerdictController& verdict,
                       QWidget* parent)
    : QWidget(parent),
      actions_(tr("Line-up, in step")),
      lineUp_(lineUp),
      studied_(studied),
      verdict_(verdict),
      instant_(new QComboBox),
      slowness_(new QComboBox),
      near_(new QComboBox),
      sameSize_(new QCheckBox(tr("Same size"))),
      run_(namedButton(tr("Run"), "runInStep")),
      place_(new QSlider(Qt::Horizontal)),
      time_(new QLabel),
      words_(faintLabel({})),
      filmButton_(namedButton(tr("Film …"), "filmInStep")),
      film_(new FilmPanel),
      picker_(new PassPicker(lineUp, studied)),
      grid_(new QGridLayout) {
  const auto steps = [this](int frames) { return [this, frames] { step(frames); }; };
  actions_.add(tr("One frame back"), {Qt::Key_D}, steps(-1))
      .add(tr("One frame on"), {Qt::Key_F}, steps(1))
      .add(tr("Ten frames back"), {Qt::Key_S}, steps(-10))
      .add(tr("Ten frames on"), {Qt::Key_G}, steps(10))
      .add(tr("Play slowly, pause"), {Qt::Key_Space}, [this] { toggle(); });
  setFocusPolicy(Qt::StrongFocus);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  layout->addWidget(picker_);
  keepColumn(*film_, kChoicesWidth_px);
  film_->hide();
  layout->addWidget(film_);
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  right->addWidget(buildControls());
  grid_->setSpacing(8);
  for (InStepPane*& pane : panes_) {
    pane = new InStepPane(this);
    pane->hide();
    connect(pane, &InStepPane::sized, this, &InStepPage::scale);
    connect(pane, &InStepPane::instantChosen, this, [this, pane](double own_s) {
      byHand_[pane->pass()->id] = own_s;
      const QSignalBlocker quiet(instant_);
      instant_->setCurrentIndex(instant_->findData(kByHand));
      refresh();
    });
  }
  right->addLayout(grid_, 1);
  auto* below = new QHBoxLayout;
  addSteps(*below);
  place_->setObjectName("inStepPlace");
  place_->setAccessibleName(tr("Time from the instant that all share"));
  below->addWidget(place_, 1);
  time_->setObjectName("inStepTime");
  time_->setMinimumWidth(230);
  below->addWidget(time_);
  right->addLayout(below);
  words_->setObjectName("inStepWords");
  right->addWidget(words_);
  layout->addLayout(right, 1);
  connect(film_, &FilmPanel::filmWanted, this,
          [this](const QString& file) { film_->maker().make(filmOrder(), file); });
  connect(film_, &FilmPanel::scriptWanted, this,
          [this](const QString& file) { film_->maker().writeScript(filmOrder(), file); });
  timer_.setTimerType(Qt::PreciseTimer);
  timer_.setInterval(kTick_ms);
  connect(&timer_, &QTimer::timeout, this, &InStepPage::tick);
  connect(place_, &QSlider::valueChanged, this, [this](int ms) {
    stop();
    goTo(ms / 1000.0);
  });
  connect(&studied, &StudiedPasses::changed, this, &InStepPage::refresh);
  refresh();
}

/// One frame back, run, one on.
void InStepPage::addSteps(QHBoxLayout& row) {
  const auto button = [&](const QString& text, const QString& says, int frames) {
    auto* out = new QPushButton(text);
    out->setAccessibleName(says);
    out->setToolTip(says);
    out->setAutoRepeat(true);
    connect(out, &QPushButton::clicked, this, [this, frames] { step(frames); });
    row.addWidget(out);
  };
  button("−1", tr("One frame back (D)"), -1);
  run_->setProperty("primary", true);
  run_->setToolTip(tr("Space"));
  row.addWidget(run_);
  button("+1", tr("One frame on (F)"), 1);
}

QWidget* InStepPage::buildControls() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  const auto add = [&](const QString& text, QComboBox* combo, const char* name) {
    auto* label = new QLabel(text);
    label->setBuddy(combo);
    combo->setObjectName(name);
    combo->setAccessibleName(text);
    row->addWidget(label);
    row->addWidget(combo);
  };
  for (const auto& [text, instant] : {std::pair(tr("the run begins"), Instant::RunBegins),
                                      {tr("touch-down"), Instant::TouchDown},
                                      {tr("the first twitch"), Instant::FirstTwitch},
                                      {tr("the second twitch"), Instant::SecondTwitch},
                                      {tr("the stop"), Instant::Stop}})
    instant_->addItem(text, static_cast<int>(instant));
  instant_->addItem(tr("where I pressed"), kByHand);

  add(tr("All from"), instant_, "sharedInstant");
  for (const int slow : {1, 2, 5, 10, 20, 50})
    slowness_->addItem(slow == 1 ? tr("true speed") : tr("1/%1 speed").arg(slow), 1.0 / slow);
  slowness_->setCurrentIndex(3);
  add(tr("at"), slowness_, "slowness");
  for (const auto& [text, times] :
       {std::pair(tr("whole picture"), 1.0), {tr("near the lure"), 2.5}, {tr("close to the lure"), 5.0}})
    near_->addItem(text, times);
  near_->setCurrentIndex(1);
  add(tr("seen"), near_, "nearness");
  sameSize_->setObjectName("sameSize");
  sameSize_->setToolTip(tr("A millimetre is as long in every picture."));
  row->addWidget(sameSize_);
  row->addStretch();
  auto* strip = namedButton(tr("Strip …"), "saveStrip");
  strip->setToolTip(tr("Keep what is seen now as one picture, side by side."));
  row->addWidget(strip);
  filmButton_->setCheckable(true);
  filmButton_->setToolTip(tr("Make a film of these passes, to be shown to others."));
  row->addWidget(filmButton_);
  connect(filmButton_, &QPushButton::toggled, this, &InStepPage::showFilm);
  connect(run_, &QPushButton::clicked, this, &InStepPage::toggle);
  connect(strip, &QPushButton::clicked, this, &InStepPage::saveStrip);
  connect(near_, &QComboBox::currentIndexChanged, this, &InStepPage::scale);
  connect(sameSize_, &QCheckBox::toggled, this, &InStepPage::scale);
  connect(slowness_, &QComboBox::currentIndexChanged, this, [this] {
    stop();
    film_->setSlowed(share() < 1.0);
  });
  connect(instant_, &QComboBox::currentIndexChanged, this, [this] {
    if (instant_->currentData().toInt() != kByHand) byHand_.clear();
    refresh();
  });
  return box;
}

void InStepPage::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

double InStepPage::instantOf(const StudiedPass& pass) const {
  if (const auto said = byHand_.find(pass.id); said != byHand_.end()) return said->second;
  const int chosen = instant_->currentData().toInt();
  if (chosen != kByHand) {
    if (const auto found = instantIn(pass, static_cast<Instant>(chosen))) return *found;
  }
  return instantIn(pass, Instant::RunBegins).value_or(0.0);
}

void InStepPage::refresh() {
  stop();
  const auto ready = studied_.ready();
  begins_s_ = 0.0;
  ends_s_ = 0.0;
  QStringList without;
  for (std::size_t i = 0; i < panes_.size(); ++i) {
    panes_[i]->setVisible(i < ready.size());
    if (i >= ready.size()) {
      panes_[i]->clear();
      continue;
    }
    const StudiedPass& pass = *ready[i];
    const double instant = instantOf(pass);
    panes_[i]->show(pass, instant, units_);
    begins_s_ = std::min(begins_s_, -instant);
    ends_s_ = std::max(ends_s_, pass.end_s() - instant);
    const int chosen = instant_->currentData().toInt();
    if (chosen != kByHand && pass.result && !instantIn(pass, static_cast<Instant>(chosen)))
      without += pass.title;
  }
  layOut();
  {
    const QSignalBlocker quiet(place_);
    place_->setRange(static_cast<int>(1000.0 * begins_s_), static_cast<int>(1000.0 * ends_s_));
  }
  QStringList lines;
  if (studied_.busy()) lines += tr("The clips are being opened …");
  if (ready.empty() && !studied_.busy())
    lines += lineUp_.passes().empty()
                 ? tr("No pass is measured yet: bring clips in and measure them on the Bench.")
                 : tr("Tick two to six passes on the left to see them run together.");
  if (!without.isEmpty())
    lines += tr("No such instant was found in: %1. They begin with their run; press in a trace to say where "
                "it is.")
                 .arg(without.join("; "));
  words_->setText(lines.join(" "));
  words_->setVisible(!lines.isEmpty());
  enableOr(*run_, !ready.empty(), tr("Choose passes first."));
  enableOr(*filmButton_, !ready.empty(), tr("Choose passes first."));
  if (film_->isVisible()) showFilm(!ready.empty());
  goTo(std::clamp(time_s_, begins_s_, ends_s_));
  scale();
}

/// One beside the other; from three on in two rows.
void InStepPage::layOut() {
  const auto count = static_cast<int>(studied_.ready().size());
  const int columns = count <= 2 ? std::max(count, 1) : (count + 1) / 2;
  for (InStepPane* pane : panes_) grid_->removeWidget(pane);
  for (int i = 0; i < count; ++i)
    grid_->addWidget(panes_[static_cast<std::size_t>(i)], i / columns, i % columns);
}

/// As large as fits; with the same size asked for, as large as the one that would have to be the smallest.
void InStepPage::scale() {
  double least = 1e300;  // screen pixels per millimetre
  bool all = sameSize_->isChecked();
  const auto shown = panes();
  for (const InStepPane* pane : shown) {
    all &= pane->mmPerPixel().has_value();
    if (all) least = std::min(least, pane->view().fitting() / *pane->mmPerPixel());
  }
  const double nearer = near_->currentData().toDouble();
  for (InStepPane* pane : panes_) {
    if (pane->isHidden()) continue;
    pane->setFollowing(nearer > 1.0);
    pane->view().setMagnified(nearer * (all ? least * *pane->mmPerPixel() : pane->view().fitting()));
  }
  if (sameSize_->isChecked() && !all && !shown.empty()) {
    words_->setText(tr("One of them has no known length: they cannot be shown at the same size."));
    words_->show();
  }
}

std::vector<const InStepPane*> InStepPage::panes() const {
  std::vector<const InStepPane*> out;
  for (const InStepPane* pane : panes_) {
    if (!pane->isHidden()) out.push_back(pane);
  }
  return out;
}

bool InStepPage::settled() const {
  if (studied_.busy()) return false;
  for (const InStepPane* pane : panes()) {
    if (pane->waits()) return false;
  }
  return true;
}

double InStepPage::finestFrame_s() const {
  double out = 1.0;
  for (const InStepPane* pane : panes()) out = std::min(out, pane->frame_s());
  return out;
}

void InStepPage::goTo(double time_s) {
  time_s_ = std::clamp(time_s, begins_s_, ends_s_);
  for (InStepPane* pane : panes_) {
    if (!pane->isHidden()) pane->goTo(time_s_);
  }
  const QSignalBlocker quiet(place_);
  place_->setValue(static_cast<int>(std::lround(1000.0 * time_s_)));
  tell();
}

void InStepPage::tell() {
  QString text = tr("%1 s from there").arg(time_s_, 0, 'f', 3);
  // The passes wait for each other, so a slow disk slows them all; that is said.
  const double wall_s = running() ? static_cast<double>(wall_.elapsed()) / 1000.0 : 0.0;
  if (wall_s > 1.0) {
    const double real = (time_s_ - from_s_) / wall_s;
    if (real < 0.93 * share()) text += tr(", only 1/%1").arg(1.0 / real, 0, 'f', 0);
  }
  time_->setText(text);
}

void InStepPage::toggle() {
  if (running()) return stop();
  if (panes().empty()) return;
  if (time_s_ >= ends_s_ - finestFrame_s()) goTo(begins_s_);
  from_s_ = time_s_;
  wall_.restart();
  due_s_ = 0.0;
  timer_.start();
  run_->setText(tr("Pause"));
}

void InStepPage::stop() {
  timer_.stop();
  run_->setText(tr("Run"));
}

/// On by a frame when it is due and every pane has shown the one before: none is left out. Only where frames
/// would follow each other faster than a screen can show them, several are taken at once.
void InStepPage::tick() {
  const double now_s = static_cast<double>(wall_.nsecsElapsed()) * 1e-9;
  if (now_s < due_s_ || !settled()) return;
  const double frame_s = finestFrame_s();
  const double step_s = frame_s * std::max(1.0, std::round(kScreen_s * share() / frame_s));
  due_s_ += step_s / share();
  if (now_s - due_s_ > kFallenBehind_s) due_s_ = now_s;
  goTo(time_s_ + step_s);
  if (time_s_ >= ends_s_) stop();
}

void InStepPage::step(int frames) {
  stop();
  goTo(time_s_ + frames * finestFrame_s());
}

void InStepPage::keyPressEvent(QKeyEvent* event) {
  if (!actions_.heard(*event)) QWidget::keyPressEvent(event);
}

void InStepPage::hideEvent(QHideEvent* event) {
  stop();
  QWidget::hideEvent(event);
}

QImage InStepPage::strip() const {
  const auto shown = panes();
  int height = 0;
  for (const InStepPane* pane : shown) {
    const QImage& picture = pane->view().picture();
    if (!picture.isNull()) height = std::max(height, kStripWidth_px * picture.height() / picture.width());
  }
  if (height == 0) return {};
  QImage out(kStripWidth_px * static_cast<int>(shown.size()), height + kStripWords_px, QImage::Format_RGB32);
  out.fill(theme().paper);
  QPainter painter(&out);
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.setPen(theme().ink);
  int x = 0;
  for (const InStepPane* pane : shown) {
    const QImage& picture = pane->view().picture();
    if (!picture.isNull()) {
      const int h = kStripWidth_px * picture.height() / picture.width();
      painter.drawImage(QRect(x + 2, 0, kStripWidth_px - 4, h), picture);
    }
    painter.drawText(QRect(x + 8, height, kStripWidth_px - 16, kStripWords_px), Qt::AlignVCenter,
                     tr("%1, %2 s").arg(pane->pass()->rig).arg(time_s_, 0, 'f', 3));
    x += kStripWidth_px;
  }
  return out;
}

void InStepPage::saveStrip() {
  const QImage picture = strip();
  if (picture.isNull()) return;
  const QString file = askWhereTo(this, tr("Where to"), "in-step.png");
  if (file.isEmpty()) return;
  words_->setText(picture.save(file) ? tr("Written: %1").arg(file) : tr("%1 cannot be written").arg(file));
  words_->show();
}

/// In place of the list of passes: which they are is said by then.
void InStepPage::showFilm(bool shown) {
  // The one that goes first, or the window would grow by the width of both.
  (shown ? static_cast<QWidget*>(picker_) : film_)->hide();
  (shown ? static_cast<QWidget*>(film_) : picker_)->show();
  if (filmButton_->isChecked() != shown) filmButton_->setChecked(shown);
  if (!shown) return;
  std::vector<Entry> entries;
  for (const Entry& entry : lineUp_.entries()) {
    for (const StudiedPass* pass : studied_.ready()) {
      if (pass->rig.toStdString() != entry.rig) continue;
      entries.push_back(entry);
      break;
    }
  }
  film_->setSlowed(share() < 1.0);
  film_->propose(QString::fromStdString(lineUp_.day().plan().name), caveatsOf(verdict_.plan(), entries));
}

FilmOrder InStepPage::filmOrder() const {
  FilmOrder out{.units = units_};
  const auto ready = studied_.ready();
  const bool sized = std::all_of(ready.begin(), ready.end(), [](const StudiedPass* pass) {
    const auto scale = scaleOf(pass->request, pass->request.scalePlane);
    return scale && *scale;
  });
  out.script.slowness = 1.0 / share();
  out.script.inches = units_ == UnitSystem::Imperial;
  out.script.view = near_->currentData().toDouble() <= 1.0 ? FilmView::Whole
                    : sameSize_->isChecked() && sized      ? FilmView::OneSize
                                                           : FilmView::Near;
  film_->fillIn(out.script);
  const std::vector<Entry> entries = lineUp_.entries();
  for (const StudiedPass* pass : ready) {
    const auto entry = std::find_if(entries.begin(), entries.end(),
                                    [&](const Entry& e) { return e.rig == pass->rig.toStdString(); });
    out.passes.push_back({*pass, instantOf(*pass), entry == entries.end() ? QString() : gradedNote(*entry)});
  }
  return out;
}

}  // namespace fin::app
