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
  axis.grid()->setPen(QPen(theme().grid, 1));
  axis.grid()->setZeroLinePen(QPen(theme().line, 1));
  axis.setTickLabelFont(smallFont());
  axis.setLabelFont(smallFont());
}

QCustomPlot* dressedPlot(const char* objectName) {
  auto* plot = new QCustomPlot;
  plot->setObjectName(objectName);
  plot->setBackground(theme().paper);
  plot->axisRect()->setBackground(theme().card);
  for (QCPAxis* axis : {plot->xAxis, plot->yAxis}) dressAxis(*axis);
  return plot;
}

namespace {

/// A colour of one theme as the other one has it; any other as it is. How see-through it is stays.
QColor dyed(const QColor& colour, const Theme& from, const Theme& to) {
  constexpr QColor Theme::*kAll[] = {&Theme::paper, &Theme::card,        &Theme::line,   &Theme::grid,
                                     &Theme::ink,   &Theme::faint,       &Theme::accent, &Theme::accentSoft,
                                     &Theme::mat,   &Theme::troubleSoft, &Theme::trouble};
  for (const auto one : kAll) {
    if ((from.*one).rgb() != colour.rgb()) continue;
    QColor out = to.*one;
    out.setAlpha(colour.alpha());
    return out;
  }
  return colour;
}

QPen dyed(QPen pen, const Theme& from, const Theme& to) {
  pen.setColor(dyed(pen.color(), from, to));
  return pen;
}

QBrush dyed(QBrush brush, const Theme& from, const Theme& to) {
  brush.setColor(dyed(brush.color(), from, to));
  return brush;
}

void dyeItem(QCPAbstractItem& item, const Theme& from, const Theme& to) {
  if (auto* line = qobject_cast<QCPItemLine*>(&item)) line->setPen(dyed(line->pen(), from, to));
  if (auto* line = qobject_cast<QCPItemStraightLine*>(&item)) line->setPen(dyed(line->pen(), from, to));
  if (auto* text = qobject_cast<QCPItemText*>(&item)) text->setColor(dyed(text->color(), from, to));
  if (auto* rect = qobject_cast<QCPItemRect*>(&item)) {
    rect->setPen(dyed(rect->pen(), from, to));
    rect->setBrush(dyed(rect->brush(), from, to));
  }
}

}  // namespace

void dyePlots(QWidget& within, const Theme& from, const Theme& to) {
  for (QCustomPlot* plot : within.findChildren<QCustomPlot*>()) {
    plot->setBackground(to.paper);
    for (QCPAxisRect* rect : plot->axisRects()) {
      rect->setBackground(to.card);
      for (QCPAxis* axis : rect->axes()) dressAxis(*axis);
    }
    for (int i = 0; i < plot->plottableCount(); ++i) {
      QCPAbstractPlottable* what = plot->plottable(i);
      what->setPen(dyed(what->pen(), from, to));
      what->setBrush(dyed(what->brush(), from, to));
    }
    for (int i = 0; i < plot->itemCount(); ++i) dyeItem(*plot->item(i), from, to);
    if (plot->legend != nullptr) {
      plot->legend->setBrush(to.card);
      plot->legend->setBorderPen(QPen(to.line));
      plot->legend->setTextColor(to.ink);
    }
    plot->replot(QCustomPlot::rpQueuedReplot);
  }
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

void addMean(QCustomPlot& plot, double lane, const QColor& colour, double mean, double from, double to) {
  auto* at = plot.addGraph(plot.yAxis, plot.xAxis);
  auto* bars = new QCPErrorBars(plot.yAxis, plot.xAxis);
  bars->setDataPlottable(at);
  bars->setErrorType(QCPErrorBars::etValueError);
  bars->setPen(QPen(colour, 3));
  bars->setWhiskerWidth(14);
  at->setLineStyle(QCPGraph::lsNone);
  at->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDiamond, QPen(colour, 2), colour, 13));
  at->setData({lane}, {mean});
  bars->setData(QVector<double>{mean - from}, {to - mean});
}

}  // namespace fin::app
