// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/rate_card.h"

#include <QGridLayout>

#include "app/ui/pieces.h"

namespace fin::app {

RateCard::RateCard(PassController& controller, QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      written_(namedButton({}, "takeWrittenRate")),
      interval_(faintLabel({})),
      between_(new UnitBox(tr("True time between them"), "s", {0.0, 100000.0, 3})),
      beats_(new UnitBox(tr("Beats from the first to the second"), "beats", {0.0, 10000.0, 0})),
      perMinute_(new UnitBox(tr("Beats a minute"), "a minute", {1.0, 1000.0, 1})),
      rollingShutter_(new UnitBox(tr("Rolling shutter, first row to last"), "ms",
                                  {0.0, 1e3 * kLongestRollingShutter.value(), 1})),
      fields_(new QCheckBox(tr("Read it field by field"))) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->addWidget(written_, 0, 0, 1, 2);
  grid->addWidget(
      faintLabel(tr("Not known? Find two frames with a known time between them: a stopwatch in view, a "
                    "blinking light, beats of the pacer.")),
      1, 0, 1, 2);
  auto* from = namedButton(tr("From this frame"), "rateFrom");
  auto* to = namedButton(tr("To this frame"), "rateTo");
  grid->addWidget(from, 2, 0);
  grid->addWidget(to, 2, 1);
  grid->addWidget(interval_, 3, 0, 1, 2);
  between_->setObjectName("trueTime");
  auto* take = namedButton(tr("That is the rate"), "takeRate");
  grid->addWidget(between_, 4, 0);
  grid->addWidget(take, 4, 1);
  beats_->setObjectName("beats");
  perMinute_->setObjectName("beatsPerMinute");
  perMinute_->show(60.0);
  auto* takeBeats = namedButton(tr("So many beats"), "takeBeats");
  grid->addWidget(beats_, 5, 0);
  grid->addWidget(perMinute_, 5, 1);
  grid->addWidget(takeBeats, 6, 1);
  fields_->setObjectName("byField");
  fields_->setToolTip(
      tr("For an interlaced clip: twice the pictures in a second, each from every other line."));
  rollingShutter_->setObjectName("rollingShutter");
  rollingShutter_->setToolTip(
      tr("Most phones read a picture row by row, in 5 to 30 ms. With the time given, every mark counts when "
         "its own row was read. 0: all at once."));
  grid->addWidget(faintLabel(tr("Rolling shutter, first row to last")), 7, 0);
  grid->addWidget(rollingShutter_, 7, 1);
  grid->addWidget(fields_, 8, 0, 1, 2);

  connect(written_, &QPushButton::clicked, this, [this] {
    controller_.edit(
        tr("Take the rate that the camera wrote"),
        [rate = controller_.clip()->info().writtenRate](PassRequest& r) { r.captureRate = rate; });
  });
  connect(from, &QPushButton::clicked, this, [this] {
    from_ = controller_.frame();
    refresh();
  });
  connect(to, &QPushButton::clicked, this, [this] {
    to_ = controller_.frame();
    refresh();
  });
  connect(take, &QPushButton::clicked, this, [this] { takeRate(Seconds(between_->metric())); });
  connect(takeBeats, &QPushButton::clicked, this,
          [this] { takeRate(Seconds(60.0 * beats_->metric() / perMinute_->metric())); });
  connect(rollingShutter_, &UnitBox::edited, this, [this](double ms) {
    controller_.edit(tr("Say how long a picture is read"), [ms](PassRequest& r) {
      r.rollingShutter = ms > 0.0 ? std::optional(Seconds(ms / 1e3)) : std::nullopt;
    });
  });
  connect(fields_, &QCheckBox::clicked, this, [this](bool on) {
    controller_.edit(tr("Read field by field"), [on](PassRequest& r) { setByField(r, on); });
  });
  connect(&controller, &PassController::passChanged, this, [this] {
    from_.reset();
    to_.reset();
    refresh();
  });
  connect(&controller, &PassController::requestChanged, this, &RateCard::refresh);
}

void RateCard::takeRate(Seconds between) {
  if (!controller_.clip() || !from_ || !to_) {
    interval_->setText(tr("First say from which frame to which."));
    return;
  }
  const auto rate = rateFromInterval(controller_.clip()->index(), *from_, *to_, between);
  if (!rate) {
    interval_->setText(QString::fromStdString(rate.error().message));
    return;
  }
  controller_.edit(tr("Find the filming rate"), [&](PassRequest& r) { r.captureRate = *rate; });
}

void RateCard::refresh() {
  if (controller_.current() == nullptr || !controller_.clip()) return;
  const PassRequest& request = controller_.current()->request;
  const ClipInfo& info = controller_.clip()->info();
  const double plays = controller_.clip()->index().regularRate().value();
  emit stateChanged(request.captureRate
                        ? tr("Filmed at %1 frames per second, plays at %2.")
                              .arg(request.captureRate->value(), 0, 'f', 2)
                              .arg(plays, 0, 'f', 2)
                        : tr("Plays at %1 frames per second; taken to be filmed so.").arg(plays, 0, 'f', 2));
  const bool proposed = info.writtenRate && !(request.captureRate == info.writtenRate);
  written_->setVisible(proposed);
  if (proposed) written_->setText(tr("Take %1, as the camera wrote").arg(info.writtenRate->value()));
  interval_->setText(from_ && to_ ? tr("From frame %1 to frame %2.").arg(*from_).arg(*to_)
                     : from_      ? tr("From frame %1 to …").arg(*from_)
                                  : QString());
  rollingShutter_->show(1e3 * request.rollingShutter.value_or(Seconds(0.0)).value());
  fields_->setVisible(info.interlaced);
  fields_->setChecked(request.byField);
}

}  // namespace fin::app
