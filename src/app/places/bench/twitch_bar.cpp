// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/twitch_bar.h"

#include <QHBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {

TwitchBar::TwitchBar(PassController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      what_(new QLabel),
      asFound_(namedButton(tr("As found"), "twitchesAsFound")),
      words_(faintLabel({})) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(5);
  row->addWidget(what_);
  const auto add = [&](const QString& text, const char* name, const QString& tip, auto&& what) {
    auto* button = namedButton(text, name);
    button->setToolTip(tip);
    connect(button, &QPushButton::clicked, this, what);
    row->addWidget(button);
    return button;
  };
  add(tr("Starts here  T"), "addTwitch", tr("A twitch starts in the frame that is shown."),
      [this] { addHere(); });
  add(tr("Not a twitch  Y"), "removeTwitch", tr("Removes the nearest start."), [this] { removeNearest(); });
  add(tr("Leave out  U"), "leaveOutTwitch",
      tr("Leaves the nearest twitch out of the numbers, or takes it in again."), [this] { leaveOutOrIn(); });
  for (const auto& [text, name, tip, frames] :
       {std::tuple(QString(","), "twitchEarlier", tr("The nearest start a frame earlier ( , )"), -1),
        {QString("."), "twitchLater", tr("The nearest start a frame later ( . )"), 1}}) {
    add(text, name, tip, [this, by = frames] { moveNearest(by); })->setAccessibleName(tip);
  }
  row->addWidget(asFound_);
  asFound_->setToolTip(tr("Forgets your corrections and goes back to the starts as found."));
  words_->setObjectName("cadenceWords");
  row->addWidget(words_, 1);
  connect(asFound_, &QPushButton::clicked, this, [this] {
    controller_.edit(tr("Twitches as found"), [](PassRequest& request) { request.twitches.reset(); });
  });
  connect(&controller, &PassController::passChanged, this, &TwitchBar::refresh);
  connect(&controller, &PassController::requestChanged, this, &TwitchBar::refresh);
  connect(&controller, &PassController::resultChanged, this, &TwitchBar::refresh);
  refresh();
}

void TwitchBar::setCadence(const Cadence& cadence) {
  cadence_ = cadence;
  refresh();
}

bool TwitchBar::applies() const {
  if (controller_.current() == nullptr || controller_.result() == nullptr || !controller_.clock())
    return false;
  const Protocol protocol = controller_.current()->request.protocol;
  return protocol == Protocol::Twitch || protocol == Protocol::Walk || protocol == Protocol::Hop;
}

void TwitchBar::refresh() {
  setVisible(applies());
  if (!applies()) return;
  what_->setText(controller_.current()->request.protocol == Protocol::Hop ? tr("Hop") : tr("Twitch"));
  enableOr(*asFound_, controller_.current()->request.twitches.has_value(),
           tr("They stand as they were found."));
  words_->setText(cadenceWords());
}

/// How the hand kept to the beat.
QString TwitchBar::cadenceWords() const {
  std::vector<double> starts;
  for (const TwitchSpan& twitch : controller_.result()->evidence.twitches)
    starts.push_back(twitch.span.from_s);
  const auto kept = keptTo(cadence_, starts);
  if (!kept) return {};
  const QString pause = tr("%1 s pause").arg(cadence_.pause.value(), 0, 'f', 2);
  const QString beat =
      cadence_.twitches < 2
          ? pause
          : tr("%1 s from one to the next, %2").arg(cadence_.between.value(), 0, 'f', 2).arg(pause);
  return tr("The hand was off the pacer's beat by %1 % (%2).").arg(kept->off_percent, 0, 'f', 0).arg(beat);
}

double TwitchBar::here_s() const {
  return controller_.clock()->timeOf(controller_.frame()).value();
}

/// What the person says begins with what was found.
void TwitchBar::change(const QString& what, const std::function<void(TwitchStarts&)>& change) {
  if (!applies()) return;
  TwitchStarts said;
  for (const TwitchSpan& twitch : controller_.result()->evidence.twitches) {
    said.starts_s.push_back(twitch.span.from_s);
    if (twitch.leftOut) said.leftOut_s.push_back(twitch.span.from_s);
  }
  const TwitchStarts before = said;
  change(said);
  if (said == before) return;
  controller_.edit(what, [&](PassRequest& request) { request.twitches = said; });
}

void TwitchBar::add(double at_s) {
  change(tr("A twitch starts here"), [at_s](TwitchStarts& said) { said.add(at_s); });
}

void TwitchBar::move(double from_s, double to_s) {
  change(tr("Move the start of a twitch"), [=](TwitchStarts& said) { said.move(from_s, to_s); });
}

void TwitchBar::addHere() {
  if (applies()) add(here_s());
}

void TwitchBar::removeNearest() {
  change(tr("This is no twitch"), [this](TwitchStarts& said) { said.remove(here_s()); });
}

void TwitchBar::leaveOutOrIn() {
  change(tr("Whether a twitch counts"), [this](TwitchStarts& said) { said.toggleExcluded(here_s()); });
}

void TwitchBar::moveNearest(int frames) {
  change(tr("Move the start of a twitch"), [&](TwitchStarts& said) {
    if (said.starts_s.empty()) return;
    const double here = here_s();
    const double start =
        *std::min_element(said.starts_s.begin(), said.starts_s.end(),
                          [here](double a, double b) { return std::abs(a - here) < std::abs(b - here); });
    said.move(start, start + frames / controller_.clock()->rate().value());
  });
}

}  // namespace fin::app
