// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/vote_plot.h"

#include <qcustomplot.h>

#include <cmath>

#include "app/plots/plot.h"
#include "app/ui/theme.h"
#include "core/units/estimate.h"

namespace fin::app {

void drawVote(QCustomPlot& plot, const VoteCount& count) {
  plot.clearPlottables();
  plot.clearItems();
  const auto share = [](double over) { return 100.0 / (1.0 + std::exp(-over)); };
  auto lanes = QSharedPointer<QCPAxisTickerText>::create();
  for (std::size_t i = 0; i < count.rigs.size(); ++i) {
    const Preferred& rig = count.rigs[i];
    const double lane = -static_cast<double>(i), half = kNormal95 * rig.se, at = share(rig.strength);
    lanes->addTick(lane, QString::fromStdString(rig.rig));
    addMean(plot, lane, markColour(static_cast<int>(i)), at, share(rig.strength - half),
            share(rig.strength + half));
  }
  auto* middle = new QCPItemStraightLine(&plot);
  middle->point1->setCoords(50.0, 0.0);
  middle->point2->setCoords(50.0, 1.0);
  middle->setPen(QPen(theme().faint, 1.4, Qt::DashLine));
  plot.xAxis->setLabel(QObject::tr("Preferred to a middling one, times in 100"));
  plot.xAxis->setRange(0.0, 100.0);
  plot.yAxis->setTicker(lanes);
  plot.yAxis->grid()->setVisible(false);
  plot.yAxis->setRange(0.4 - static_cast<double>(count.rigs.size()), 0.6);
  plot.setAccessibleName(QObject::tr("How often each would be preferred to a middling one"));
  plot.replot();
}

}  // namespace fin::app
