// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/main_trace.h"

#include <array>

namespace fin {

std::string_view MainTrace::unit() const {
  if (what == What::Angle) return "deg";
  if (what == What::Area) return millimetres ? "mm²" : "px²";
  return millimetres ? "mm" : "px";
}

double MainTrace::shown(double value) const {
  const double zero = fromFirst() && !series.empty() ? series.y.front() : 0.0;
  return what == What::Depth ? zero - value : value - zero;
}

MainTrace mainTraceOf(const PassRequest& request, const PassResult& result) {
  using What = MainTrace::What;
  const PassTraces& traces = result.traces;
  if (request.protocol == Protocol::Skirt)
    return {What::Area, result.outline.area, result.outline.inMillimetres};
  if (request.protocol == Protocol::Fall) return {What::Depth, traces.upCentre, traces.inMillimetres};
  if (request.protocol == Protocol::Hop) return {What::Height, traces.upCentre, traces.inMillimetres};
  if (request.view == View::Top || request.protocol == Protocol::Drag)
    return {What::Angle, traces.axis, false};
  return {What::Along, traces.alongCentre, traces.inMillimetres};
}

std::string_view toString(MainTrace::What what) {
  constexpr std::array<std::string_view, 5> kWords{"Area", "Depth", "Height", "Angle", "Along"};
  return kWords[static_cast<std::size_t>(what)];
}

}  // namespace fin
