// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/depth_page.h"

#include <qcustomplot.h>

#include <QVBoxLayout>

#include "app/look/pieces.h"
#include "app/look/plot.h"
#include "app/look/theme.h"

namespace fin::app {
DepthPage::DepthPage(LineUp& lineUp, QWidget* parent)
    : QWidget(parent),
      lineUp_(lineUp),
      heading_(new QLabel),
      words_(new QLabel),
      plot_(dressedPlot("depthPlot")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  heading_->setObjectName("depthHeading");
  heading_->setFont(largeNumberFont());
  heading_->setWordWrap(true);
  layout->addWidget(heading_);
  plot_->yAxis->setRangeReversed(true);
  plot_->legend->setBrush(theme().card);
  plot_->legend->setBorderPen(QPen(theme().line));
  plot_->legend->setTextColor(theme().ink);
  layout->addWidget(plot_, 1);
  words_->setObjectName("depthWords");
  words_->setWordWrap(true);
  layout->addWidget(words_);
  layout->addStretch();
  connect(&lineUp, &LineUp::changed, this, &DepthPage::refresh);
}

void DepthPage::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void DepthPage::refresh() {
  plot_->clearPlottables();
  const auto rigs = depthsOf(lineUp_.passes());
  plot_->setVisible(!rigs.empty());
  plot_->legend->setVisible(!rigs.empty());
  if (rigs.empty()) {
    heading_->setText(tr("No running depth was read yet."));
    words_->setText(tr(
        "Film straight pulls from the side, with the surface in the picture, and draw the waterline on the "
        "bench. Several speeds of one rig make a curve."));
    return;
  }
  heading_->setText(tr("How deep it runs"));
  words_->setText(tr(
      "Every ring is a pull, with the depth it settled at. Between the speeds of one rig the curve goes on "
      "smoothly; nothing is said of speeds that were not filmed, nor of other lengths of line."));
  const ShownUnit speed = shownUnit("mm/s", units_);
  const ShownUnit depth = shownUnit("mm", units_);
  plot_->xAxis->setLabel(tr("Pulled at, %1").arg(speed.unit));
  plot_->yAxis->setLabel(tr("Below the surface, %1").arg(depth.unit));
  double fastest = 0.0;
  double deepest = 0.0;
  int colour = 0;
  for (const auto& [rig, points] : rigs) {
    draw(rig, points, markColour(colour++));
    for (const DepthPoint& p : points) {
      fastest = std::max(fastest, p.speed_mm_s * speed.factor);
      deepest = std::max(deepest, (p.depth_mm + p.u95_mm) * depth.factor);
    }
  }
  plot_->xAxis->setRange(0.0, 1.06 * fastest);
  plot_->yAxis->setRange(0.0, 1.1 * deepest);
  plot_->setAccessibleName(tr("Running depth of %1 against the speed of the pull")
                               .arg(counted(rigs.size(), tr("rig"), tr("rigs"))));
  plot_->replot();
}

void DepthPage::draw(const std::string& rig, const std::vector<DepthPoint>& points, const QColor& colour) {
  const double speed = shownUnit("mm/s", units_).factor;
  const double depth = shownUnit("mm", units_).factor;
  QCPGraph* rings = plot_->addGraph();
  rings->setName(QString::fromStdString(rig));
  rings->setLineStyle(QCPGraph::lsNone);
  rings->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(colour, 2), theme().card, 9));
  auto* bars = new QCPErrorBars(plot_->xAxis, plot_->yAxis);
  bars->setDataPlottable(rings);
  bars->setPen(QPen(colour, 1.4));
  bars->removeFromLegend();
  std::vector<double> x, y;
  for (const DepthPoint& p : points) {
    rings->addData(p.speed_mm_s * speed, p.depth_mm * depth);
    bars->addData(p.u95_mm * depth);
    if (!x.empty() && p.speed_mm_s * speed <= x.back()) continue;
    x.push_back(p.speed_mm_s * speed);
    y.push_back(p.depth_mm * depth);
  }
  if (QCPGraph* curve = addCurve(*plot_, x, y, QPen(colour, 2))) curve->removeFromLegend();
}

}  // namespace fin::app
