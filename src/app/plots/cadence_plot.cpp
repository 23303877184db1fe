// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/cadence_plot.h"

#include <qcustomplot.h>

#include "app/plots/plot.h"
#include "app/ui/theme.h"

namespace fin::app {

void drawCadence(QCustomPlot& plot, const CadenceLadder& ladder, UnitSystem units) {
  plot.clearPlottables();
  plot.clearItems();
  const ShownUnit climb = shownUnit("mm", units);
  std::vector<double> x, y;
  QVector<double> seenX, seenY, seenU;
  double least = 0.0;
  double most = 0.0;
  for (const CadenceRung& rung : ladder.rungs) {
    const double rise = rung.rise_mm * climb.factor;
    const double unsure = rung.riseU95_mm * climb.factor;
    seenX.push_back(rung.interval_s);
    seenY.push_back(rise);
    seenU.push_back(unsure);
    least = std::min(least, rise - unsure);
    most = std::max(most, rise + unsure);
    if (!x.empty() && rung.interval_s <= x.back()) continue;
    x.push_back(rung.interval_s);
    y.push_back(rise);
  }
  const QColor ink = markColour(0);
  plot.xAxis->setLabel(QObject::tr("From twitch to twitch, s"));
  plot.yAxis->setLabel(QObject::tr("Climbs with every twitch, %1").arg(climb.unit));
  const double room = 0.1 * std::max(most - least, 1e-3);
  plot.xAxis->setRange(0.0, 1.1 * (seenX.empty() ? 1.0 : seenX.back()));
  plot.yAxis->setRange(least - room, most + room);
  auto* level = new QCPItemStraightLine(&plot);
  level->point1->setCoords(0.0, 0.0);
  level->point2->setCoords(1.0, 0.0);
  level->setPen(QPen(theme().faint, 1.5, Qt::DashLine));
  for (const Reading& reading : ladder.readings.readings) {
    auto* at = new QCPItemStraightLine(&plot);
    const double interval_s = std::get<double>(reading.value);
    at->point1->setCoords(interval_s, 0.0);
    at->point2->setCoords(interval_s, 1.0);
    at->setPen(QPen(theme().accent, reading.id == ReadingId::HoldInterval ? 2.5 : 1.2));
  }
  auto* line = plot.addGraph();
  line->setPen(QPen(ink, 2));
  line->setData(QVector<double>(x.begin(), x.end()), QVector<double>(y.begin(), y.end()), true);
  auto* points = plot.addGraph();
  points->setLineStyle(QCPGraph::lsNone);
  points->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(ink, 2), theme().card, 9));
  points->setData(seenX, seenY, true);
  auto* bars = new QCPErrorBars(plot.xAxis, plot.yAxis);
  bars->setDataPlottable(points);
  bars->setPen(QPen(ink, 1.4));
  bars->setData(seenU);
  plot.setAccessibleName(QObject::tr("Climb with every twitch against the time between twitches"));
  plot.replot();
}

}  // namespace fin::app
