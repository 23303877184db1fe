// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/poolside_place.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {
namespace {

QFrame* inCard(QWidget* widget) {
  QFrame* box = card();
  auto* layout = new QVBoxLayout(box);
  layout->setContentsMargins(16, 12, 16, 12);
  layout->addWidget(widget);
  return box;
}

}  // namespace

PoolsidePlace::PoolsidePlace(DayController& day, PassController& passes, const VerdictController& verdict,
                             WaterController& water, QWidget* parent)
    : QWidget(parent),
      clips_(day, passes),
      now_(new NowPanel(day)),
      pacer_(new PacerPanel(day)),
      list_(new RunList(day, passes, clips_)),
      incoming_(new IncomingPanel(day, clips_)),
      next_(new FilmNextBar(day, verdict)),
      running_(new RunningPage(water)),
      actions_(tr("Poolside")) {
  setFocusPolicy(Qt::StrongFocus);
  auto* both = new QVBoxLayout(this);
  both->setContentsMargins(0, 0, 0, 0);
  auto* pages = new QStackedWidget;
  both->addWidget(pages);
  auto* testDay = new QWidget;
  pages->addWidget(testDay);
  pages->addWidget(running_);
  const auto show = [pages, &water] { pages->setCurrentIndex(water.onTheWater() ? 1 : 0); };
  connect(&water, &WaterController::changed, this, show);
  show();
  auto* grid = new QGridLayout(testDay);
  grid->setContentsMargins(14, 12, 14, 12);
  grid->setSpacing(12);
  grid->addWidget(inCard(now_), 0, 0);
  connect(now_, &NowPanel::planWanted, this, &PoolsidePlace::planWanted);
  grid->addWidget(inCard(pacer_), 0, 1);
  grid->addWidget(list_, 1, 0);
  grid->addWidget(inCard(incoming_), 1, 1);
  grid->addWidget(next_, 2, 0, 1, 2);
  if (QWidget* lines = cautionLines(Step::Poolside)) grid->addWidget(lines, 3, 0, 1, 2);
  grid->setColumnStretch(0, 5);
  grid->setColumnStretch(1, 3);
  grid->setRowStretch(0, 5);
  grid->setRowStretch(1, 4);
  fillActions();
}

void PoolsidePlace::fillActions() {
  const QString now[] = {tr("Done"), tr("Fouled"), tr("Again"), tr("Skip"), tr("Note")};
  for (int i = 0; i < 5; ++i) {
    actions_.add(now[i], {QKeySequence(Qt::Key_1 + i)}, [this, i] { now_->key(i + 1); });
  }
  actions_.add(tr("Not fouled, while a reason is asked for"), {Qt::Key_6}, [this] { now_->key(6); })
      .add(tr("Start or stop the beat"), {Qt::Key_P}, [this] { pacer_->toggle(); })
      .add(tr("Take the chosen clip in"), {Qt::Key_T}, [this] { incoming_->takeChosen(); })
      .add(tr("Take all clips in that have their pass"), {QKeySequence(Qt::SHIFT | Qt::Key_T)},
           [this] { incoming_->takeAll(); })
      .add(tr("Plan the rest of the day by what is still open"), {Qt::Key_R}, [this] { next_->replan(); })
      .tell(tr("Move a clip to another pass"), tr("Alt and Up, Down"));
}

void PoolsidePlace::keyPressEvent(QKeyEvent* event) {
  if (running_->isVisible()) return QWidget::keyPressEvent(event);
  if (!actions_.heard(*event)) QWidget::keyPressEvent(event);
}

}  // namespace fin::app
