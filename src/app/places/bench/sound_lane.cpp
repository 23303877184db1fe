// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/sound_lane.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <tuple>

#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kLeft_px = 62;  ///< as in the trace beneath
constexpr int kRight_px = 14;
constexpr int kLow_px = 52;
constexpr int kTall_px = 190;
constexpr int kTimes_px = 20;  ///< beneath, where the lane stands alone
constexpr double kQuietest_dB = -60.0;

double decibels(float value) {
  return std::max(20.0 * std::log10(std::max(static_cast<double>(value), 1e-9)), kQuietest_dB);
}

}  // namespace

SoundLane::SoundLane(PassController& controller, const QuietBar& quiet, QWidget* parent)
    : QWidget(parent), controller_(controller), quiet_(quiet) {
  setObjectName("soundLane");
  setAccessibleName(tr("How loud the clip is over time"));
  setToolTip(tr(
      "Sound: the peaks in outline, the level filled, in decibels below the loudest that can be written."));
  hide();
  connect(&controller, &PassController::passChanged, this, &SoundLane::listen);
  connect(&controller, &PassController::requestChanged, this, &SoundLane::takeRoom);
  connect(&controller, &PassController::frameChanged, this, qOverload<>(&QWidget::update));
  connect(&quiet, &QuietBar::fromChanged, this, qOverload<>(&QWidget::update));
}

/// What is read for its sound alone has the room that a motion's trace would have.
void SoundLane::takeRoom() {
  alone_ = controller_.current() != nullptr && controller_.current()->request.protocol == Protocol::Sound;
  setFixedHeight(alone_ ? kTall_px : kLow_px);
}

void SoundLane::listen() {
  takeRoom();
  if (controller_.clip() == clip_) return;
  clip_ = controller_.clip();
  listening_.stop();
  level_ = {};
  hide();
  if (!clip_ || !clip_->info().hasSound) return;
  const Seconds step(std::max(length_s() / 2000.0, 0.002));
  listening_.start([clip = clip_, step](const JobControl& job) { return soundLevel(*clip, step, job); },
                   [this](Result<SoundLevel> level) {
                     if (!level) return;
                     level_ = std::move(*level);
                     show();
                     update();
                   });
}

double SoundLane::length_s() const {
  return std::max(clip_->index().timeOf(clip_->index().frameCount() - 1).value(), 1e-3);
}

QRectF SoundLane::plot() const {
  return QRectF(kLeft_px, 2, width() - kLeft_px - kRight_px, height() - 4 - (alone_ ? kTimes_px : 0));
}

void SoundLane::paintEvent(QPaintEvent*) {
  if (!clip_ || !heard()) return;
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const QRectF box = plot();
  painter.fillRect(box, theme().card);
  painter.setPen(QPen(theme().line, 1));
  painter.drawRect(box);
  shadeQuiet(painter, box);
  const auto pathOf = [&](const std::vector<float>& values) {
    QPainterPath path(box.bottomLeft());
    for (std::size_t i = 0; i < values.size(); ++i) {
      const double t = level_.start.value() + (static_cast<double>(i) + 0.5) * level_.step.value();
      const double x = box.left() + box.width() * std::min(t / length_s(), 1.0);
      path.lineTo(x, box.bottom() - box.height() * (1.0 - decibels(values[i]) / kQuietest_dB));
    }
    path.lineTo(box.bottomRight());
    return path;
  };
  painter.setPen(QPen(theme().faint, 1));
  painter.drawPath(pathOf(level_.peak));
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().ink);
  painter.drawPath(pathOf(level_.rms));
  painter.setBrush(Qt::NoBrush);
  painter.setPen(theme().ink);
  painter.setFont(smallFont());
  if (alone_) writeTimes(painter, box);
  const QRectF words(0, 0, kLeft_px - 6, box.bottom() + 2);
  painter.drawText(words, Qt::AlignRight | Qt::AlignTop, tr("0 dB"));
  painter.drawText(words, Qt::AlignRight | Qt::AlignVCenter, tr("Sound"));
  painter.drawText(words, Qt::AlignRight | Qt::AlignBottom, QString::number(kQuietest_dB, 'f', 0));
  painter.setPen(QPen(theme().accent, 2));
  const double x = box.left() + box.width() * clip_->index().timeOf(controller_.frame()).value() / length_s();
  painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
}

/// Whole seconds beneath.
void SoundLane::writeTimes(QPainter& painter, const QRectF& box) const {
  for (int s = 0; s <= static_cast<int>(length_s()); ++s) {
    const double x = box.left() + box.width() * s / length_s();
    painter.drawText(QRectF(x - 40.0, box.bottom() + 2.0, 80.0, kTimes_px), Qt::AlignHCenter | Qt::AlignTop,
                     tr("%1 s").arg(s));
  }
}

/// The quiet stretch as it was said; up to where one stands while it is being said.
void SoundLane::shadeQuiet(QPainter& painter, const QRectF& box) const {
  if (controller_.current() == nullptr || controller_.current()->request.protocol != Protocol::Sound) return;
  const auto& quiet = controller_.current()->request.quiet;
  double from = quiet ? quiet->from.value() : 0.0;
  double to = quiet ? quiet->to.value() : 0.0;
  if (const auto begun = quiet_.from_s())
    std::tie(from, to) = std::minmax(*begun, clip_->index().timeOf(controller_.frame()).value());
  const double scale = box.width() / length_s();
  painter.fillRect(QRectF(box.left() + scale * from, box.top(), scale * (to - from), box.height()),
                   theme().accentSoft);
}

void SoundLane::mousePressEvent(QMouseEvent* event) {
  goTo(event->position().x());
}

void SoundLane::mouseMoveEvent(QMouseEvent* event) {
  goTo(event->position().x());
}

void SoundLane::goTo(double x) {
  if (!clip_) return;
  const double share = std::clamp((x - plot().left()) / plot().width(), 0.0, 1.0);
  emit frameWanted(clip_->index().frameShownAt(Seconds(share * length_s())));
}

}  // namespace fin::app
