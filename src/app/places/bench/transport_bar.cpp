// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/transport_bar.h"

#include <QHBoxLayout>
#include <algorithm>

namespace fin::app {

TransportBar::TransportBar(PassController& controller, Playback& playback, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      playback_(playback),
      run_(new QPushButton(tr("Play slowly"))),
      speed_(new QComboBox),
      place_(new QLabel) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  layout->addWidget(button("−10", tr("Ten frames back"), -10));
  layout->addWidget(button("−1", tr("One frame back"), -1));
  layout->addWidget(run_);
  layout->addWidget(button("+1", tr("One frame on"), 1));
  layout->addWidget(button("+10", tr("Ten frames on"), 10));
  layout->addWidget(speed_);
  layout->addStretch();
  layout->addWidget(place_);

  run_->setObjectName("run");
  run_->setFixedWidth(112);
  for (const auto& [text, share] :
       {std::pair(tr("1/10 of true speed"), 0.1), {tr("1/4 of true speed"), 0.25}, {tr("true speed"), 1.0}}) {
    speed_->addItem(text, share);
  }
  speed_->setAccessibleName(tr("How slowly the clip runs"));
  connect(run_, &QPushButton::clicked, &playback, &Playback::toggle);
  connect(speed_, &QComboBox::currentIndexChanged, this,
          [this] { playback_.setSpeed(speed_->currentData().toDouble()); });
  connect(&playback, &Playback::runningChanged, this,
          [this](bool running) { run_->setText(running ? tr("Pause") : tr("Play slowly")); });
  connect(&controller, &PassController::frameChanged, this, &TransportBar::tellPlace);
  connect(&controller, &PassController::passChanged, this, &TransportBar::tellPlace);
  connect(&controller, &PassController::requestChanged, this, &TransportBar::tellPlace);
  tellPlace();
}

QPushButton* TransportBar::button(const QString& text, const QString& name, int frames) {
  auto* out = new QPushButton(text);
  out->setAccessibleName(name);
  out->setToolTip(name);
  out->setFixedWidth(52);
  out->setAutoRepeat(true);
  connect(out, &QPushButton::clicked, this, [this, frames] { step(frames); });
  return out;
}

void TransportBar::step(int frames) {
  playback_.stop();
  const auto now = static_cast<std::ptrdiff_t>(controller_.frame());
  controller_.showFrame(static_cast<std::size_t>(std::max<std::ptrdiff_t>(now + frames, 0)));
}

void TransportBar::tellPlace() {
  setEnabled(controller_.clip() != nullptr);
  if (!controller_.clock()) return place_->clear();
  const std::size_t count = controller_.clip()->index().frameCount();
  place_->setText(tr("%1 s   frame %2 of %3")
                      .arg(controller_.clock()->timeOf(controller_.frame()).value(), 0, 'f', 3)
                      .arg(controller_.frame())
                      .arg(count));
}

}  // namespace fin::app
