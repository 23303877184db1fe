// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/look/found_bar.h"

#include <QHBoxLayout>
#include <cmath>

#include "app/phrases/words.h"
#include "app/ui/pieces.h"

namespace fin::app {
namespace {

QString about(double left_s) {
  if (left_s < 90.0) return QObject::tr("about %1 s").arg(std::max(1.0, std::ceil(left_s / 5.0) * 5.0));
  return QObject::tr("about %1 min").arg(std::ceil(left_s / 60.0));
}

}  // namespace

FoundBar::FoundBar(LookThrough& look, MeasuringQueue& queue, QWidget* parent)
    : QFrame(parent),
      look_(look),
      queue_(queue),
      text_(new QLabel),
      begin_(namedButton({}, "measureUnmarked")),
      stop_(namedButton(tr("Stop"), "stopFinding")),
      through_(namedButton(tr("Look through"), "lookThrough")) {
  setObjectName("found");
  setProperty("card", true);
  text_->setObjectName("foundText");
  text_->setTextFormat(Qt::PlainText);
  text_->setWordWrap(true);
  through_->setProperty("primary", true);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 6, 12, 6);
  row->addWidget(text_, 1);
  for (QPushButton* button : {begin_, stop_, through_}) row->addWidget(button);
  begin_->setText(tr("Find the lure and measure"));
  connect(begin_, &QPushButton::clicked, this, &FoundBar::begin);
  connect(stop_, &QPushButton::clicked, &queue, &MeasuringQueue::stop);
  connect(through_, &QPushButton::clicked, this, &FoundBar::lookWanted);
  connect(&queue, &MeasuringQueue::progressed, this, &FoundBar::refresh);
  connect(&look, &LookThrough::changed, this, &FoundBar::refresh);
  refresh();
}

void FoundBar::setLooking(bool looking) {
  looking_ = looking;
  refresh();
}

void FoundBar::begin() {
  queue_.add(queue_.unmarked(), Depth::Find);
}

void FoundBar::refresh() {
  const std::size_t left = queue_.left();
  const std::size_t unmarked = queue_.unmarked().size();
  const std::size_t waiting = look_.waiting().size();
  QStringList sentences;
  if (left > 0) {
    const auto left_s = queue_.left_s();
    sentences << tr("Measuring pass %1 of %2%3.")
                     .arg(queue_.done() + 1)
                     .arg(queue_.done() + left)
                     .arg(left_s ? tr(", %1 left").arg(about(*left_s)) : QString());
  }
  if (unmarked > 1) sentences << tr("%1 without marks.").arg(counted(unmarked, tr("clip"), tr("clips")));
  if (waiting > 0 && !looking_)
    sentences << tr("%1 for your look before it is compared.")
                     .arg(counted(waiting, tr("pass waits"), tr("passes wait")));
  text_->setText(sentences.join(" "));
  begin_->setVisible(unmarked > 1);  // a single one lies on the bench, with a button of its own
  stop_->setVisible(left > 0);
  through_->setVisible(waiting > 0 && !looking_);
  setVisible(!sentences.isEmpty());
}

}  // namespace fin::app
