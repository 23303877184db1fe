// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/running_page.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>
#include <set>
#include <utility>

#include "app/ui/pieces.h"
#include "app/ui/theme.h"
#include "core/season/water_cautions.h"

namespace fin::app {
namespace {

constexpr int kTick_ms = 1000;
constexpr double kAsleep_s = 120.0;  ///< a clock that ticks once a second has slept
constexpr double kSayMore_s = 900.0;
constexpr double kLengthStep_mm = 50.0;
constexpr double kFirstLength_mm = 400.0;

QString duration(double minutes) {
  const int whole = static_cast<int>(minutes);
  return QString("%1:%2").arg(whole / 60).arg(whole % 60, 2, 10, QChar('0'));
}

}  // namespace

RunningPage::RunningPage(WaterController& water, QWidget* parent)
    : QWidget(parent),
      water_(water),
      actions_(tr("On the water"),
               [this] { return water_.onTheWater() ? QString() : tr("This is a test day."); }),
      advice_(new WholeLabel),
      told_(new WholeLabel),
      rodRow_(new QWidget),
      fish_(new WholeLabel),
      events_(new QListWidget),
      sums_(new WholeLabel) {
  setFocusPolicy(Qt::StrongFocus);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(14, 10, 14, 10);
  layout->setSpacing(8);
  told_->setObjectName("runTold");
  setLetters(*told_, "large");
  setLook(*told_, "trouble", true);
  setLetters(*advice_, "middle");
  advice_->setObjectName("tierAdvice");
  setLetters(*fish_, "middle");
  fish_->setObjectName("fishDetails");
  layout->addWidget(told_);
  layout->addWidget(rodRow_, 3);
  auto* row = new QHBoxLayout(rodRow_);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(14);
  layout->addWidget(buildTie(), 3);
  layout->addWidget(fish_);
  layout->addWidget(advice_);
  auto* keys =
      new WholeLabel(tr("1 fish   2 miss   3 follow   4 foul   5 lure lost      Space: rod in or out   T: "
                        "tie on   Left, Right: rod"));
  keys->setObjectName("runKeys");
  setLetters(*keys, "large");
  keys->setAlignment(Qt::AlignCenter);
  layout->addWidget(keys);
  // What is below gives way first where letters are large.
  auto* foot = new QWidget;
  foot->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Ignored);
  auto* below = new QHBoxLayout(foot);
  below->setContentsMargins(0, 0, 0, 0);
  events_->setObjectName("runEvents");
  events_->setAccessibleName(tr("What happened, the newest first"));
  events_->setUniformItemSizes(true);
  events_->setFocusPolicy(Qt::NoFocus);
  below->addWidget(events_, 3);
  sums_->setObjectName("runSums");
  below->addWidget(sums_, 2, Qt::AlignTop);
  layout->addWidget(foot, 2);
  fillActions();
  connect(&clock_, &QTimer::timeout, this, &RunningPage::tick);
  connect(&water_, &WaterController::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

QWidget* RunningPage::buildTie() {
  tie_ = new QWidget;
  auto* layout = new QVBoxLayout(tie_);
  layout->setContentsMargins(0, 0, 0, 0);
  tieHead_ = new WholeLabel;
  setLetters(*tieHead_, "large");
  layout->addWidget(tieHead_);
  tieList_ = new QListWidget;
  tieList_->setObjectName("tieList");
  tieList_->setAccessibleName(tr("Rigs to tie on; what the water speaks for first"));
  setLetters(*tieList_, "larger");
  layout->addWidget(tieList_);
  tie_->hide();
  connect(tieList_, &QListWidget::itemActivated, this, &RunningPage::takeTied);
  return tie_;
}

void RunningPage::fillActions() {
  const std::pair<RunEventKind, int> keys[] = {{RunEventKind::Caught, Qt::Key_1},
                                               {RunEventKind::Missed, Qt::Key_2},
                                               {RunEventKind::Followed, Qt::Key_3},
                                               {RunEventKind::Fouled, Qt::Key_4},
                                               {RunEventKind::Lost, Qt::Key_5}};
  for (const auto& [kind, key] : keys)
    actions_.add(tr("Note: %1").arg(spokenName(kind)), {QKeySequence(key)},
                 [this, kind = kind] { came(kind); });
  const auto fish = [this](const QString& what, Qt::Key key, std::function<void(RunEvent&)> detail) {
    actions_.add(tr("The last fish: %1").arg(what), {QKeySequence(key)}, [this, detail] { say(detail); });
  };
  actions_
      .add(tr("Put the rod to work, or take it in"), {Qt::Key_Space}, [this] { water_.toggleRod(chosen_); })
      .add(tr("Tie another rig on"), {Qt::Key_T}, [this] { openTie(); })
      .add(tr("Choose the rod to the left"), {Qt::Key_Left}, [this] { choose(chosen_ - 1); })
      .add(tr("Choose the rod to the right"), {Qt::Key_Right}, [this] { choose(chosen_ + 1); })
      .add(tr("Take the step down"), {Qt::Key_PageDown}, [this] { takeStep(TierAdvice::Go::Down); })
      .add(tr("Take the step up"), {Qt::Key_PageUp}, [this] { takeStep(TierAdvice::Go::Up); })
      .add(tr("Begin a stretch that both rods fish"), {Qt::Key_B}, [this] { water_.beginBlock(); })
      .add(tr("The rods fished while nothing was noted"), {Qt::Key_Y}, [this] { answerGap(true); })
      .add(tr("They did not"), {Qt::Key_N}, [this] { answerGap(false); });
  fish(tr("took on the pause"), Qt::Key_P, [](RunEvent& e) { e.on = TakenOn::Pause; });
  fish(tr("on the pull"), Qt::Key_U, [](RunEvent& e) { e.on = TakenOn::Pull; });
  fish(tr("on the fall"), Qt::Key_F, [](RunEvent& e) { e.on = TakenOn::Fall; });
  fish(tr("hooked in the mouth"), Qt::Key_M, [](RunEvent& e) { e.hooked = HookedWhere::Mouth; });
  fish(tr("hooked outside"), Qt::Key_O, [](RunEvent& e) { e.hooked = HookedWhere::Outside; });
  fish(tr("released, or not"), Qt::Key_R, [](RunEvent& e) { e.released = !e.released.value_or(false); });
  fish(tr("longer by 50 mm"), Qt::Key_Up,
       [](RunEvent& e) { e.length_mm = e.length_mm ? *e.length_mm + kLengthStep_mm : kFirstLength_mm; });
  fish(tr("shorter by 50 mm"), Qt::Key_Down, [](RunEvent& e) {
    e.length_mm = std::max(kLengthStep_mm, e.length_mm ? *e.length_mm - kLengthStep_mm : kFirstLength_mm);
  });
}

void RunningPage::keyPressEvent(QKeyEvent* event) {
  if (tie_->isVisible() && event->key() == Qt::Key_Escape) {
    tie_->hide();
    rodRow_->show();
    asked_.reset();
    return refresh();
  }
  if (!actions_.heard(*event)) QWidget::keyPressEvent(event);
}

void RunningPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  lastTick_s_ = water_.now();
  clock_.start(kTick_ms);
  refresh();
  setFocus();
}

void RunningPage::tick() {
  const double now = water_.now();
  const bool slept = lastTick_s_ > 0.0 && now - lastTick_s_ > kAsleep_s;
  const RunningDay run = water_.run();
  const bool working =
      std::any_of(run.rods.begin(), run.rods.end(), [](const RodNow& r) { return r.working; });
  if (slept && working && !gap_) gap_ = {lastTick_s_, now};
  lastTick_s_ = now;
  if (isVisible()) refresh();
}

void RunningPage::makeRods() {
  while (static_cast<int>(cards_.size()) > rods()) {
    delete cards_.back().frame;
    cards_.pop_back();
  }
  while (static_cast<int>(cards_.size()) < rods()) {
    RodCard one{card(), new QLabel, new QLabel, new QLabel};
    auto* layout = new QVBoxLayout(one.frame);
    layout->setContentsMargins(16, 8, 16, 8);
    layout->setSpacing(2);
    const auto rod = static_cast<int>(cards_.size()) + 1;
    one.rig->setObjectName(QString("rodRig%1").arg(rod));
    one.state->setObjectName(QString("rodState%1").arg(rod));
    one.speed->setObjectName(QString("rodSpeed%1").arg(rod));
    setLetters(*one.rig, "giant");
    setLetters(*one.state, "huge");
    setLetters(*one.speed, "middle");
    for (QLabel* label : {one.rig, one.state, one.speed}) {
      label->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
      layout->addWidget(label);
    }
    rodRow_->layout()->addWidget(one.frame);
    cards_.push_back(one);
  }
}

void RunningPage::refresh() {
  if (!water_.onTheWater()) return;
  makeRods();
  chosen_ = std::clamp(chosen_, 1, rods());
  const RunningDay run = water_.run();
  for (std::size_t i = 0; i < cards_.size(); ++i) {
    const RodNow& rod = run.rods[i];
    const RodCard& one = cards_[i];
    const Rig* rig = water_.plan().rack.rig(rod.rig);
    const Model* model = rig == nullptr ? nullptr : water_.plan().rack.model(rig->model);
    const QString name = model == nullptr ? tr("no lure") : QString::fromStdString(model->name);
    one.rig->setText(
        one.rig->fontMetrics().elidedText(name, Qt::ElideRight, std::max(200, one.frame->width() - 40)));
    one.rig->setAccessibleName(tr("Rod %1: %2").arg(rod.rod).arg(water_.rigName(rod.rig)));
    double minutes = 0.0;
    for (const Stint& stint : run.stints) {
      if (stint.rod == rod.rod && stint.rig == rod.rig) minutes += 60.0 * stint.hours();
    }
    one.state->setText(rod.working      ? tr("in the water %1").arg(duration(minutes))
                       : rig == nullptr ? tr("press T")
                                        : tr("out of the water"));
    QStringList small;
    small += tr("rod %1").arg(rod.rod);
    if (rig != nullptr && !rig->name.empty()) small += QString::fromStdString(rig->name);
    if (rod.speed_mm_s) small += inAllSpeeds(*rod.speed_mm_s);
    one.speed->setText(small.join(QString::fromUtf8("  ·  ")));
    setLook(*one.frame, "chosen", rod.rod == chosen_);
    one.frame->setStyleSheet(
        rod.rod == chosen_
            ? QString("QFrame { border: 3px solid %1; } QLabel { border: none; }").arg(theme().accent.name())
            : QString());
  }
  QStringList told;
  if (gap_)
    told += tr("From %1 to %2 nothing was noted. Were the rods fishing? Y yes, N no.")
                .arg(spokenClock(gap_->first), spokenClock(gap_->second));
  for (const std::string& trouble : run.troubles) told += QString::fromStdString(trouble);
  for (const std::string& caution : cautionsOn(water_.water())) told += QString::fromStdString(caution);
  told_->setText(told.join("\n"));
  told_->setVisible(!told.isEmpty());
  showAdvice(run);
  showEvents(run);
}

void RunningPage::showAdvice(const RunningDay& run) {
  const TierAdvice advice = adviceFor(tierFactsOf(water_.plan(), run, water_.lookedAt()));
  QStringList because;
  for (const std::string& one : advice.because) because += QString::fromStdString(one);
  QString words;
  if (advice.go == TierAdvice::Go::Down) words = tr("Step down, with Page Down: %1.").arg(because.join("; "));
  if (advice.go == TierAdvice::Go::Up) words = tr("Step up, with Page Up: %1.").arg(because.join("; "));
  if (advice.go == TierAdvice::Go::Stay)
    words = because.isEmpty() ? tr("Stay on tier %1.").arg(run.tier)
                              : tr("Stay on tier %1: %2.").arg(run.tier).arg(because.join("; "));
  std::size_t fish = 0;
  double hours = 0.0;
  for (const RunningDay& day : water_.season().runs) {
    fish += day.count(RunEventKind::Caught);
    hours += day.rodHours();
  }
  const double silent = run.sinceTouch_rodMin();
  if (fish > 0 && silent >= 1.0)
    words += tr(" %1 rod-minutes without a touch: by chance alone that happens %2 times in 100 at your usual "
                "rate.")
                 .arg(qRound(silent))
                 .arg(qRound(100.0 * chanceOfSilence(static_cast<double>(fish) / hours, silent / 60.0)));
  advice_->setText(words + swapInWords());
}

/// Two rigs that fish the same stretches are swapped when one has had its time.
QString RunningPage::swapInWords() const {
  const auto& events = water_.plan().events;
  const auto last =
      std::find_if(events.rbegin(), events.rend(), [](const RunEvent& e) { return e.block > 0; });
  if (last == events.rend() || rods() != 2) return {};
  const int block = last->block;
  double began = last->at_s;
  std::set<RigId> rigs;
  const RunningDay run = water_.run();
  if (std::none_of(run.rods.begin(), run.rods.end(), [](const RodNow& r) { return r.working; })) return {};
  for (const Stint& stint : run.stints) {
    if (stint.block != block) continue;
    began = std::min(began, stint.from_s);
    rigs.insert(stint.rig);
  }
  const WaterDayPlan& day = water_.plan().waterDay;
  if (rigs.size() != 2 || water_.lookedAt() - began < 60.0 * day.blockMinutes) return {};
  const bool firstOnOne = firstOnFirstRod(static_cast<std::size_t>(block) + 1, day.seed).back();
  const RigId one = firstOnOne ? *rigs.begin() : *rigs.rbegin();
  const RigId two = firstOnOne ? *rigs.rbegin() : *rigs.begin();
  return tr(" This stretch has had its %1 minutes. As drawn, next: %2 on rod 1, %3 on rod 2; then press B.")
      .arg(qRound(day.blockMinutes))
      .arg(water_.rigName(one), water_.rigName(two));
}

void RunningPage::showEvents(const RunningDay& run) {
  const auto& events = water_.plan().events;
  const auto last = std::find_if(events.rbegin(), events.rend(),
                                 [](const RunEvent& e) { return e.kind == RunEventKind::Caught; });
  // More is said of a fish soon after it, or not at all.
  const bool fresh = last != events.rend() && water_.lookedAt() - last->at_s < kSayMore_s;
  if (fresh) {
    QStringList known;
    if (last->length_mm) known += spokenAmount(*last->length_mm, "mm", 0, water_.days().units());
    if (last->on != TakenOn::Unknown)
      known += tr("on the %1").arg(QString::fromUtf8(toString(last->on).data()));
    if (last->hooked != HookedWhere::Unknown)
      known += last->hooked == HookedWhere::Mouth ? tr("in the mouth") : tr("hooked outside");
    if (last->released) known += *last->released ? tr("released") : tr("kept");
    fish_->setText(
        tr("Last fish, %1: %2.   P pause, U pull, F fall, M mouth, O outside, R released, Up and Down length")
            .arg(water_.rigName(last->rig), known.isEmpty() ? tr("nothing more said") : known.join(", ")));
  }
  fish_->setVisible(fresh);
  events_->clear();
  constexpr int kShown = 12;  // more than the page has room for
  int shown = 0;
  for (auto event = events.rbegin(); event != events.rend() && shown < kShown; ++event, ++shown) {
    QString text = spokenEvent(*event);
    if (event->rig) text += ": " + water_.rigName(event->rig);
    events_->addItem(text);
  }
  const Wasted wasted = wastedOf(run, water_.season().bands, rods());
  QStringList sums;
  sums += tr("%1 rod-hours, %2, %3, %4")
              .arg(run.rodHours(), 0, 'f', 1)
              .arg(counted(run.count(RunEventKind::Caught), tr("fish"), tr("fish")),
                   counted(run.count(RunEventKind::Missed), tr("miss"), tr("misses")),
                   counted(run.count(RunEventKind::Followed), tr("follow"), tr("follows")));
  if (const auto first = run.toFirstTouch_rodMin())
    sums += tr("First touch after %1 rod-minutes").arg(qRound(*first));
  sums += tr("Wasted: %1 rod-minutes out of the water, %2 at a wrong speed")
              .arg(qRound(wasted.outOfWater_rodMin))
              .arg(qRound(wasted.outsideBand_rodMin));
  sums_->setText(sums.join("\n"));
}

void RunningPage::choose(int rod) {
  chosen_ = std::clamp(rod, 1, rods());
  refresh();
}

void RunningPage::came(RunEventKind kind) {
  const RunningDay run = water_.run();
  const RodNow& rod = run.rods[static_cast<std::size_t>(chosen_ - 1)];
  if (rod.working && rod.rig) return water_.came(chosen_, kind);
  askWhich(kind);
}

/// The rod is not in the water: of which rig was it?
void RunningPage::askWhich(RunEventKind kind) {
  asked_ = kind;
  openTie();
  tieHead_->setText(tr("The rod is not in the water. On which rig came the %1?").arg(spokenName(kind)));
}

void RunningPage::openTie() {
  const TieOn result = water_.tieOn();
  const auto& candidates = water_.candidates();
  tieHead_->setText(tr("Rod %1: tie on, with Enter. What the water speaks for comes first.").arg(chosen_));
  tieList_->clear();
  std::vector<RigId> order;
  for (const TieChoice& choice : result.choices) order.push_back(candidates[choice.candidate].rig);
  for (const Rig& rig : water_.plan().rack.rigs) {
    if (std::find(order.begin(), order.end(), rig.id) == order.end()) order.push_back(rig.id);
  }
  for (const RigId rig : order) {
    auto* item = new QListWidgetItem(water_.rigName(rig), tieList_);
    item->setData(Qt::UserRole, QVariant::fromValue<qlonglong>(rig.value()));
  }
  if (tieList_->count() == 0) return;
  tieList_->setCurrentRow(0);
  rodRow_->hide();
  tie_->show();
  tieList_->setFocus();
}

void RunningPage::takeTied() {
  const QListWidgetItem* item = tieList_->currentItem();
  if (item == nullptr) return;
  const RigId rig = item->data(Qt::UserRole).toLongLong();
  const auto asked = std::exchange(asked_, std::nullopt);
  tie_->hide();
  rodRow_->show();
  setFocus();
  if (asked) {
    water_.came(chosen_, *asked, rig);
  } else {
    water_.tie(chosen_, rig);
  }
}

void RunningPage::takeStep(TierAdvice::Go go) {
  const int now = water_.run().tier;
  water_.takeTier(std::max(1, now + (go == TierAdvice::Go::Down ? 1 : -1)));
}

void RunningPage::answerGap(bool fished) {
  if (!gap_) return;
  const auto [from, to] = *gap_;
  gap_.reset();
  water_.gap(from, to, fished);
  refresh();
}

void RunningPage::say(const std::function<void(RunEvent&)>& detail) {
  water_.detail(detail);
}

}  // namespace fin::app
