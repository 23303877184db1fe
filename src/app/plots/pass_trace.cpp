// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/pass_trace.h"

#include <qcustomplot.h>

#include <limits>

#include "core/measuring/main_trace.h"

namespace fin::app {
namespace {

QString sentenceFor(MainTrace::What what) {
  switch (what) {
    case MainTrace::What::Area:
      return QObject::tr("How much of the picture the lure and its skirt cover.");
    case MainTrace::What::Depth:
      return QObject::tr("How far the body has fallen since the first frame.");
    case MainTrace::What::Height:
      return QObject::tr("How high the body is over where it was at first.");
    case MainTrace::What::Angle:
      return QObject::tr("Which way the body points, against the pull.");
    case MainTrace::What::Along:
      break;
  }
  return QObject::tr("How far the body has come along the pull.");
}

}  // namespace

ShownTrace traceFor(const PassRequest& request, const PassResult& result, UnitSystem units) {
  MainTrace trace = mainTraceOf(request, result);
  const std::string_view name = toString(trace.what);
  const ShownUnit unit =
      trace.what == MainTrace::What::Angle ? ShownUnit{1.0, "°"} : shownUnit(trace.unit(), units);
  ShownTrace out{
      QString("%1, %2").arg(QString::fromUtf8(name.data(), static_cast<qsizetype>(name.size())), unit.unit),
      sentenceFor(trace.what)};
  const double zero = trace.shown(0.0);
  out.factor = (trace.shown(1.0) - zero) * unit.factor;
  out.zero = trace.what == MainTrace::What::Depth ? zero : -zero;
  out.millimetres = trace.fromFirst();
  for (double& y : trace.series.y) y = out.show(y);
  out.series = std::move(trace.series);
  return out;
}

void fillTrace(QCPGraph& graph, const Series& series, double from_s) {
  const double hole_s = 1.6 * series.spacing_s();
  QVector<double> t;
  QVector<double> y;
  for (std::size_t i = 0; i < series.size(); ++i) {
    if (i > 0 && series.t_s[i] - series.t_s[i - 1] > hole_s) {
      t.push_back(0.5 * (series.t_s[i] + series.t_s[i - 1]) - from_s);
      y.push_back(std::numeric_limits<double>::quiet_NaN());
    }
    t.push_back(series.t_s[i] - from_s);
    y.push_back(series.y[i]);
  }
  graph.setData(t, y, true);
}

}  // namespace fin::app
