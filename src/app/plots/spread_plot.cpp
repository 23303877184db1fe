// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/spread_plot.h"

#include <qcustomplot.h>

#include <map>

#include "app/plots/plot.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

/// Points of a rig's passes lie beside each other across its lane, so that none hides another.
double laneOffset(std::size_t i, std::size_t count) {
  return count < 2 ? 0.0 : 0.22 * (2.0 * static_cast<double>(i) / static_cast<double>(count - 1) - 1.0);
}

/// At the right, for each group that cannot be told apart, a bar over its lanes.
void drawGroups(QCustomPlot& plot, const Spread& spread) {
  std::map<QChar, std::pair<std::size_t, std::size_t>> lanes;  // letter → first and last lane
  for (std::size_t i = 0; i < spread.rigs.size(); ++i) {
    for (const QChar letter : QString::fromStdString(spread.rigs[i].letters))
      lanes.try_emplace(letter, i, i).first->second.second = i;
  }
  double right = 0.985;  // of the plot's width
  for (const auto& [letter, lane] : lanes) {
    if (lane.first == lane.second) continue;
    auto* bar = new QCPItemLine(&plot);
    for (QCPItemPosition* end : {bar->start, bar->end}) {
      end->setTypeX(QCPItemPosition::ptAxisRectRatio);
      end->setTypeY(QCPItemPosition::ptPlotCoords);
    }
    bar->start->setCoords(right, 0.3 - static_cast<double>(lane.first));
    bar->end->setCoords(right, -0.3 - static_cast<double>(lane.second));
    QPen pen(theme().faint, 5);
    pen.setCapStyle(Qt::FlatCap);
    bar->setPen(pen);
    right -= 0.02;
  }
}

}  // namespace

std::vector<SpreadPoint> drawSpread(QCustomPlot& plot, const Spread& spread,
                                    const std::vector<ComparedRig>& rigs, const QString& name,
                                    const ShownUnit& unit) {
  const double factor = unit.factor;
  std::vector<SpreadPoint> points;
  plot.clearPlottables();
  auto lanes = QSharedPointer<QCPAxisTickerText>::create();
  double least = 1e300;
  double most = -1e300;
  for (std::size_t i = 0; i < spread.rigs.size(); ++i) {
    const RigMean& rig = spread.rigs[i];
    const double lane = -static_cast<double>(i);
    lanes->addTick(lane, rig.letters.empty() ? QString::fromStdString(rig.rig)
                                             : QString("%1   %2").arg(QString::fromStdString(rig.rig),
                                                                      QString::fromStdString(rig.letters)));
    addMean(plot, lane, markColour(static_cast<int>(i)), rig.mean * factor, rig.from * factor,
            rig.to * factor);
    least = std::min(least, rig.from * factor);
    most = std::max(most, rig.to * factor);
    const auto& values = std::find_if(rigs.begin(), rigs.end(), [&](const ComparedRig& r) {
                           return r.rig == rig.rig;
                         })->values;
    auto* dots = plot.addGraph(plot.yAxis, plot.xAxis);
    dots->setLineStyle(QCPGraph::lsNone);
    dots->setScatterStyle(
        QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(theme().ink, 1.4), theme().card, 9));
    for (std::size_t k = 0; k < values.size(); ++k) {
      const SpreadPoint point{values[k].pass, values[k].value * factor,
                              lane + 0.34 + 0.5 * laneOffset(k, values.size())};
      dots->addData(point.y, point.x);
      points.push_back(point);
      least = std::min(least, point.x);
      most = std::max(most, point.x);
    }
  }
  const double room = std::max(0.08 * (most - least), 1e-6 + 0.02 * std::abs(most));
  plot.xAxis->setLabel(unit.unit.isEmpty() ? name : QString("%1, %2").arg(name, unit.unit));
  plot.xAxis->setRange(least - room, most + 1.6 * room);  // to the right bars of groups
  plot.yAxis->setTicker(lanes);
  plot.yAxis->setRange(0.4 - static_cast<double>(spread.rigs.size()), 0.75);
  drawGroups(plot, spread);
  plot.setAccessibleName(QObject::tr("%1: passes as rings, means with their interval").arg(name));
  plot.replot();
  return points;
}

}  // namespace fin::app
