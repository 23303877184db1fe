// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

#include "app/phrases/words.h"
#include "core/measuring/measure.h"

class QCPGraph;

namespace fin::app {

/// The trace that a pass's protocol turns on, as it is shown.
struct ShownTrace {
  QString axis;
  QString sentence;
  Series series;
  double factor = 1.0;       ///< from the trace's own values to those shown
  double zero = 0.0;         ///< what is shown as nothing
  bool millimetres = false;  ///< it is a place, and no angle

  [[nodiscard]] double show(double value) const { return (value - zero) * factor; }
};
ShownTrace traceFor(const PassRequest& request, const PassResult& result, UnitSystem units);

/// With a hole where frames are missing, so that no line is drawn across what was not seen. `from_s` is where
/// the time begins that is shown.
void fillTrace(QCPGraph& graph, const Series& series, double from_s = 0.0);

}  // namespace fin::app
