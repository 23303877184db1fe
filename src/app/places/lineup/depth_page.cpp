// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/depth_page.h"

#include <qcustomplot.h>

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
DepthPage::DepthPage(LineUp& lineUp, QWidget* parent)
    : QWidget(parent),
      lineUp_(lineUp),
      by_(new QComboBox),
      heading_(new QLabel),
      words_(new QLabel),
      plot_(dressedPlot("depthPlot")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  heading_->setObjectName("depthHeading");
  setLetters(*heading_, "large");
  heading_->setWordWrap(true);
  auto* row = new QHBoxLayout;
  row->addWidget(heading_, 1);
  by_->addItems({tr("against the speed of the pull"), tr("against the line that was out")});
  by_->setObjectName("depthBy");
  by_->setAccessibleName(tr("What the depth is laid out by"));
  row->addWidget(by_);
  layout->addLayout(row);
  connect(by_, &QComboBox::currentIndexChanged, this, &DepthPage::refresh);
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

ShownUnit DepthPage::unit() const {
  if (by() == DepthBy::Speed) return shownUnit(kPullSpeed, units_);
  const ShownUnit metres = shownUnit("m", units_);
  return {0.001 * metres.factor, metres.unit};
}

void DepthPage::refresh() {
  plot_->clearPlottables();
  const auto curves = depthsOf(lineUp_.passes(), by());
  plot_->setVisible(!curves.empty());
  plot_->legend->setVisible(!curves.empty());
  if (curves.empty()) {
    const bool none = depthsOf(lineUp_.passes(), DepthBy::Speed).empty();
    heading_->setText(none ? tr("No running depth was read yet.")
                           : tr("How much line was out was not said."));
    words_->setText(
        none ? tr("Film straight pulls from the side, with the surface in the picture, and draw the "
                  "waterline on the bench. Several speeds of one rig make a curve.")
             : tr("Say it at the poolside, with the note on a pass: it holds from there on."));
    return;
  }
  heading_->setText(tr("How deep it runs"));
  words_->setText(
      by() == DepthBy::Speed
          ? tr("Every ring is a pull, with the depth it settled at. Between the speeds of one rig the curve "
               "goes on "
               "smoothly; nothing is said of speeds that were not filmed, nor of other lengths of line.")
          : tr("Every ring is a pull, with the depth it settled at. Between the lengths of line the curve "
               "goes on "
               "smoothly; nothing is said of lengths that were not out, nor of other speeds."));
  const ShownUnit depth = shownUnit("mm", units_);
  plot_->xAxis->setLabel(by() == DepthBy::Speed ? tr("Pulled at, %1").arg(unit().unit)
                                                : tr("Line out, %1").arg(unit().unit));
  plot_->yAxis->setLabel(tr("Below the surface, %1").arg(depth.unit));
  double furthest = 0.0;
  double deepest = 0.0;
  int colour = 0;
  for (const DepthCurve& curve : curves) {
    draw(curve, markColour(colour++));
    for (const DepthPoint& p : curve.points) {
      furthest = std::max(furthest, p.by * unit().factor);
      deepest = std::max(deepest, (p.depth_mm + p.u95_mm) * depth.factor);
    }
  }
  plot_->xAxis->setRange(0.0, 1.06 * furthest);
  plot_->yAxis->setRange(0.0, 1.1 * deepest);
  plot_->setAccessibleName(
      tr("Running depth of %1, %2").arg(counted(curves.size(), tr("rig"), tr("rigs")), by_->currentText()));
  plot_->replot();
}

/// What was held the same stands with the rig.
QString DepthPage::nameOf(const DepthCurve& curve) const {
  const QString rig = QString::fromStdString(curve.rig);
  if (!curve.held) return rig;
  if (by() == DepthBy::LineOut) return tr("%1, about %2").arg(rig, spokenPull(*curve.held, units_));
  const ShownUnit metres = shownUnit("m", units_);
  return tr("%1, %2 %3 of line")
      .arg(rig)
      .arg(0.001 * *curve.held * metres.factor, 0, 'f', 0)
      .arg(metres.unit);
}

void DepthPage::draw(const DepthCurve& curve, const QColor& colour) {
  const double depth = shownUnit("mm", units_).factor;
  QCPGraph* rings = plot_->addGraph();
  rings->setName(nameOf(curve));
  rings->setLineStyle(QCPGraph::lsNone);
  rings->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(colour, 2), theme().card, 9));
  auto* bars = new QCPErrorBars(plot_->xAxis, plot_->yAxis);
  bars->setDataPlottable(rings);
  bars->setPen(QPen(colour, 1.4));
  bars->removeFromLegend();
  std::vector<double> x, y;
  for (const DepthPoint& p : curve.points) {
    rings->addData(p.by * unit().factor, p.depth_mm * depth);
    bars->addData(p.u95_mm * depth);
    if (!x.empty() && p.by * unit().factor <= x.back()) continue;
    x.push_back(p.by * unit().factor);
    y.push_back(p.depth_mm * depth);
  }
  if (QCPGraph* line = addCurve(*plot_, x, y, QPen(colour, 2))) line->removeFromLegend();
}

}  // namespace fin::app
