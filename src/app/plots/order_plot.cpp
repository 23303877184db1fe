// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/order_plot.h"

#include <qcustomplot.h>

#include <cmath>

#include "app/phrases/verdict_words.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kMostTicks = 12.0;

}  // namespace

void drawOrder(QCustomPlot& plot, const ScoreTable& table, const Ranking& ranking, std::size_t most) {
  const auto count = std::min(most, ranking.placings.size());
  auto lanes = QSharedPointer<QCPAxisTickerText>::create();
  double last = 1.0;
  for (std::size_t i = 0; i < count; ++i) {
    const Placing& placing = ranking.placings[i];
    const double lane = -static_cast<double>(i);
    last = std::max(last, placing.placeTo);
    lanes->addTick(lane, QString::fromStdString(table.entries[placing.entry].rig));
    auto* bar = new QCPItemLine(&plot);
    bar->start->setCoords(placing.placeFrom - 0.12, lane);
    bar->end->setCoords(placing.placeTo + 0.12, lane);
    QPen pen(i == 0 ? theme().accent : theme().faint, 11);
    pen.setCapStyle(Qt::RoundCap);
    bar->setPen(pen);
    auto* dot = plot.addGraph(plot.yAxis, plot.xAxis);
    dot->setLineStyle(QCPGraph::lsNone);
    dot->setScatterStyle(
        QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(theme().ink, 1.6), theme().card, 13));
    dot->setData({lane}, {placing.meanPlace});
    auto* chance = new QCPItemText(&plot);
    chance->position->setTypeX(QCPItemPosition::ptAxisRectRatio);
    chance->position->setTypeY(QCPItemPosition::ptPlotCoords);
    chance->position->setCoords(0.99, lane);
    chance->setPositionAlignment(Qt::AlignRight | Qt::AlignVCenter);
    chance->setFont(smallFont());
    chance->setColor(theme().ink);
    chance->setText(QObject::tr("first: %1").arg(chanceInWords(table, placing)));
  }
  auto places = QSharedPointer<QCPAxisTickerText>::create();
  const double step = std::max(1.0, std::ceil(last / kMostTicks));
  for (double place = 1.0; place <= last; place += step) places->addTick(place, QString::number(place));
  plot.xAxis->setTicker(places);
  plot.xAxis->setLabel(QObject::tr("Place"));
  plot.xAxis->setRange(0.6, last + 0.4 + 0.22 * last);  // to the right the chances
  plot.yAxis->setTicker(lanes);
  plot.yAxis->grid()->setVisible(false);
  plot.yAxis->setRange(0.4 - static_cast<double>(count), 0.6);
  plot.setAccessibleName(QObject::tr("The order, and which places each may have"));
  plot.replot();
}

}  // namespace fin::app
