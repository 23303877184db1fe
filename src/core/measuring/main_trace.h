// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string_view>

#include "core/measuring/measure.h"

namespace fin {

/// The one trace that a pass's protocol turns on.
struct MainTrace {
  enum class What { Area, Depth, Height, Angle, Along };
  What what = What::Along;
  Series series;  ///< as PassTraces and OutlineTraces have it
  /// In mm or mm², else in pixels; of no meaning for an angle.
  bool millimetres = false;

  /// Depth and height and what has come along the pull count from the first frame.
  [[nodiscard]] bool fromFirst() const { return what != What::Area && what != What::Angle; }
  /// "mm²", "px²", "mm", "px" or "deg".
  [[nodiscard]] std::string_view unit() const;
  /// `value` of the series as it is shown: downwards for a depth, from the first frame where that counts.
  [[nodiscard]] double shown(double value) const;
};
MainTrace mainTraceOf(const PassRequest& request, const PassResult& result);

/// "Angle", "Depth", …
std::string_view toString(MainTrace::What what);

}  // namespace fin
