// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/pacer_panel.h"

#include <QGridLayout>
#include <QVBoxLayout>

#include "app/places/plan/number_form.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {

PacerPanel::PacerPanel(DayController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      turns_(new QLabel),
      mark_(new BeatMark(pacer_)),
      run_(namedButton(tr("Start the beat  P"), "pacer")),
      silent_(faintLabel({})) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(headingLabel(tr("Keep the pace")));
  turns_->setObjectName("handleTurns");
  setLetters(*turns_, "large");
  turns_->setWordWrap(true);
  layout->addWidget(turns_);
  layout->addWidget(mark_, 1);
  run_->setMinimumHeight(44);
  layout->addWidget(run_);
  layout->addWidget(silent_);
  auto* grid = new QGridLayout;
  grid->setVerticalSpacing(3);
  const UnitBox::Range time{0.05, 60.0, 2};
  addNumbers(*grid, controller,
             {{tr("Twitches in a group"),
               "twitches",
               "",
               {1.0, 20.0, 0},
               [](const DayPlan& p) { return static_cast<double>(p.cadence.twitches); },
               [](DayPlan& p, double v) { p.cadence.twitches = static_cast<int>(v); }},
              {tr("From twitch to twitch"), "between", "s", time,
               [](const DayPlan& p) { return p.cadence.between.value(); },
               [](DayPlan& p, double v) { p.cadence.between = Seconds(v); }},
              {tr("Pause"), "pause", "s", time, [](const DayPlan& p) { return p.cadence.pause.value(); },
               [](DayPlan& p, double v) { p.cadence.pause = Seconds(v); }},
              {tr("Line to one turn"),
               "linePerTurn",
               "mm",
               {1.0, 5000.0, 0},
               [](const DayPlan& p) { return p.linePerTurn_mm; },
               [](DayPlan& p, double v) { p.linePerTurn_mm = v; }}},
             *this);
  layout->addLayout(grid);
  connect(run_, &QPushButton::clicked, this, &PacerPanel::toggle);
  connect(&pacer_, &Pacer::runningChanged, this, &PacerPanel::refresh);
  connect(&controller, &DayController::planChanged, this, [this] {
    if (pacer_.running() && !(pacer_.cadence() == controller_.plan().cadence)) pacer_.stop();
    refresh();
  });
  refresh();
}

void PacerPanel::toggle() {
  pacer_.running() ? pacer_.stop() : pacer_.start(controller_.plan().cadence);
}

void PacerPanel::refresh() {
  mark_->preview(controller_.plan().cadence);
  run_->setText(pacer_.running() ? tr("Stop the beat  P") : tr("Start the beat  P"));
  silent_->setText(pacer_.running() && !pacer_.sounding()
                       ? tr("There is no sound device here: watch the beat instead.")
                       : QString());
  const PlannedPass* now = controller_.now();
  const auto turns = now != nullptr && now->speed_mm_s
                         ? handleTurnsPerMinute(MillimetresPerSecond(*now->speed_mm_s),
                                                Millimetres(controller_.plan().linePerTurn_mm))
                         : Result<double>(tl::unexpected(Error{}));
  turns_->setVisible(turns.has_value());
  if (turns) turns_->setText(tr("%1 turns of the handle a minute").arg(*turns, 0, 'f', 0));
}

}  // namespace fin::app
