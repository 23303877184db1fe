// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/poolside/beat_mark.h"

#include <QPainter>
#include <cmath>

#include "app/ui/theme.h"

namespace fin::app {

constexpr int kFrame_ms = 16;
constexpr double kFlash_s = 0.14;

BeatMark::BeatMark(Pacer& pacer, QWidget* parent) : QWidget(parent), pacer_(pacer) {
  setMinimumHeight(84);
  setAccessibleName(tr("The beat"));
  repaint_.setInterval(kFrame_ms);
  repaint_.setTimerType(Qt::PreciseTimer);
  connect(&repaint_, &QTimer::timeout, this, qOverload<>(&QWidget::update));
  connect(&pacer, &Pacer::runningChanged, this, [this](bool running) {
    running ? repaint_.start() : repaint_.stop();
    update();
  });
}

void BeatMark::preview(const Cadence& cadence) {
  cadence_ = cadence;
  update();
}

void BeatMark::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const double cycle = cadence_.cycle().value();
  if (!(cycle > 0.0)) return;
  const double left = 26.0;
  const double width = this->width() - 2.0 * left;
  const double middle = 0.5 * height();
  const double now = pacer_.running() ? std::fmod(pacer_.elapsed().value(), cycle) : 0.0;
  painter.setPen(QPen(theme().line, 4, Qt::SolidLine, Qt::RoundCap));
  painter.drawLine(QPointF(left, middle), QPointF(left + width, middle));
  bool flash = false;
  for (int i = 0; i < cadence_.twitches; ++i) {
    const double at = cadence_.beat(static_cast<std::size_t>(i)).value();
    const bool hit = pacer_.running() && now >= at && now < at + kFlash_s;
    flash |= hit;
    painter.setPen(QPen(hit ? theme().accent : theme().ink, hit ? 9 : 5, Qt::SolidLine, Qt::RoundCap));
    const double x = left + width * at / cycle;
    painter.drawLine(QPointF(x, middle - 26), QPointF(x, middle + 26));
  }
  if (!pacer_.running()) return;
  painter.setPen(QPen(Qt::white, 2));
  painter.setBrush(theme().accent);
  const double r = flash ? 22.0 : 14.0;
  painter.drawEllipse(QPointF(left + width * now / cycle, middle), r, r);
}

}  // namespace fin::app
