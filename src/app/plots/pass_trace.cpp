// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/pass_trace.h"

#include <qcustomplot.h>

#include <limits>

namespace fin::app {
namespace {

ShownTrace scaled(const QString& what, const QString& sentence, Series series, bool upsideDown,
                  bool millimetres, UnitSystem units) {
  const ShownUnit unit = millimetres ? shownUnit("mm", units) : ShownUnit{1.0, "px"};
  ShownTrace out{QString("%1, %2").arg(what, unit.unit), sentence, std::move(series)};
  out.zero = out.series.empty() ? 0.0 : out.series.y.front();
  out.factor = upsideDown ? -unit.factor : unit.factor;
  out.millimetres = true;
  for (double& v : out.series.y) v = out.show(v);
  return out;
}

}  // namespace

ShownTrace traceFor(const PassRequest& request, const PassResult& result, UnitSystem units) {
  const PassTraces& traces = result.traces;
  if (request.protocol == Protocol::Skirt) {
    const OutlineTraces& outline = result.outline;
    const ShownUnit unit = outline.inMillimetres ? shownUnit("mm²", units) : ShownUnit{1.0, "px²"};
    ShownTrace out{QObject::tr("Area, %1").arg(unit.unit),
                   QObject::tr("How much of the picture the lure and its skirt cover."), outline.area};
    for (double& v : out.series.y) v *= unit.factor;
    return out;
  }
  if (request.protocol == Protocol::Fall) {
    return scaled(QObject::tr("Depth"), QObject::tr("How far the body has fallen since the first frame."),
                  traces.upCentre, true, traces.inMillimetres, units);
  }
  if (request.protocol == Protocol::Hop) {
    return scaled(QObject::tr("Height"), QObject::tr("How high the body is over where it was at first."),
                  traces.upCentre, false, traces.inMillimetres, units);
  }
  if (request.view == View::Top || request.protocol == Protocol::Drag) {
    return {QObject::tr("Angle, °"), QObject::tr("Which way the body points, against the pull."),
            traces.axis};
  }
  return scaled(QObject::tr("Along"), QObject::tr("How far the body has come along the pull."),
                traces.alongCentre, false, traces.inMillimetres, units);
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
