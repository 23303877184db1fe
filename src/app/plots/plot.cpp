// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/plot.h"

#include <qcustomplot.h>

#include "app/ui/theme.h"
#include "core/comparison/monotone_curve.h"

namespace fin::app {
namespace {

constexpr int kCurveSteps = 120;

}  // namespace

void dressAxis(QCPAxis& axis) {
  axis.setLabelColor(theme().ink);
  axis.setTickLabelColor(theme().ink);
  axis.setBasePen(QPen(theme().line));
  axis.setTickPen(QPen(theme().line));
  axis.setSubTickPen(Qt::NoPen);
  axis.grid()->setPen(QPen(QColor(0xE2, 0xDB, 0xCD), 1));
  axis.grid()->setZeroLinePen(QPen(theme().line, 1));
  QFont font;
  font.setPixelSize(12);
  axis.setTickLabelFont(font);
  axis.setLabelFont(font);
}

QCustomPlot* dressedPlot(const char* objectName) {
  auto* plot = new QCustomPlot;
  plot->setObjectName(objectName);
  plot->setBackground(theme().paper);
  plot->axisRect()->setBackground(theme().card);
  for (QCPAxis* axis : {plot->xAxis, plot->yAxis}) dressAxis(*axis);
  return plot;
}

QCPGraph* addCurve(QCustomPlot& plot, const std::vector<double>& x, const std::vector<double>& y,
                   const QPen& pen) {
  if (x.size() < 2) return nullptr;
  const MonotoneCurve through(x, y);
  QCPGraph* curve = plot.addGraph();
  curve->setPen(pen);
  for (int i = 0; i <= kCurveSteps; ++i) {
    const double at = x.front() + (x.back() - x.front()) * i / kCurveSteps;
    curve->addData(at, through.at(at));
  }
  return curve;
}

}  // namespace fin::app
