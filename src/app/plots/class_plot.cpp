// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/class_plot.h"

#include <qcustomplot.h>

#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kHalfLane = 0.3;

void addPiece(QCustomPlot& plot, double from, double to, double lane, const QColor& colour,
              const QString& says) {
  auto* piece = new QCPItemRect(&plot);
  piece->topLeft->setCoords(from, lane + kHalfLane);
  piece->bottomRight->setCoords(to, lane - kHalfLane);
  piece->setPen(QPen(theme().card, 2));
  piece->setBrush(colour.isValid() ? QBrush(colour) : QBrush(theme().faint, Qt::BDiagPattern));
  auto* label = new QCPItemText(&plot);
  label->position->setCoords(0.5 * (from + to), lane);
  label->setText(says);
  label->setColor(theme().ink);
  label->setBrush(theme().card);
  label->setPadding(QMargins(6, 2, 6, 2));
}

}  // namespace

void drawClasses(QCustomPlot& plot, const ClassSpread& spread, const QString& name) {
  plot.clearPlottables();
  plot.clearItems();
  auto lanes = QSharedPointer<QCPAxisTickerText>::create();
  double longest = 1.0;
  for (std::size_t i = 0; i < spread.rigs.size(); ++i) {
    const RigClasses& rig = spread.rigs[i];
    const double lane = -static_cast<double>(i);
    lanes->addTick(lane, rig.letters.empty() ? QString::fromStdString(rig.rig)
                                             : QString("%1   %2").arg(QString::fromStdString(rig.rig),
                                                                      QString::fromStdString(rig.letters)));
    double at = 0.0;
    for (std::size_t c = 0; c < spread.classes.size(); ++c) {
      const std::size_t passes = rig.passesOf(spread.classes[c]);
      if (passes == 0) continue;
      const double to = at + static_cast<double>(passes);
      addPiece(plot, at, to, lane, markColour(static_cast<int>(c)),
               QString::fromStdString(spread.classes[c]));
      at = to;
    }
    if (rig.refused > 0) {
      const double to = at + static_cast<double>(rig.refused);
      addPiece(plot, at, to, lane, {}, QObject::tr("refused"));
      at = to;
    }
    longest = std::max(longest, at);
  }
  auto ticks = QSharedPointer<QCPAxisTickerFixed>::create();
  ticks->setTickStep(1.0);
  plot.xAxis->setTicker(ticks);
  plot.xAxis->setLabel(QObject::tr("%1, passes").arg(name));
  plot.xAxis->setRange(0.0, 1.05 * longest);
  plot.yAxis->setTicker(lanes);
  plot.yAxis->setRange(0.4 - static_cast<double>(spread.rigs.size()), 0.6);
  plot.setAccessibleName(QObject::tr("%1: passes of each rig by what was read").arg(name));
  plot.replot();
}

}  // namespace fin::app
