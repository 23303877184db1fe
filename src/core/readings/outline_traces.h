// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"

namespace fin {

/// What a silhouette did against true time, in the frames that show it whole. Areas in mm² with a scale, in
/// px² without one.
struct OutlineTraces {
  Series area;
  Series change;  ///< area of the symmetric difference to the outline 1/60 s before, over the area
  Series pace;  ///< how fast the nose (or the outline's middle, where there is no nose) goes, unit per second
  bool inMillimetres = false;
  double scaleRelativeU95 = 0.0;
  double perimeter_px = 0.0;  ///< median length of the rim
  double area_px2 = 0.0;      ///< median area
};

/// Areas come from the rim followed to a part of a pixel (silhouette.h); what of that is unsure is the
/// reader's to add (skirt.h). Pure; on any thread. Empty where no outline was followed. A change over a
/// longer or shorter step than 1/60 s is taken in proportion.
OutlineTraces traceOutline(const Track& track, std::span<const double> time_s, const Geometry& geometry);

/// The lure's brightness, 0 … 255: in its outline, or between its marks where no outline was followed.
Series traceFlash(const Track& track, std::span<const double> time_s);

}  // namespace fin
