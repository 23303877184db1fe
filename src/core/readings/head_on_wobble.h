// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// The known sizes of a body that comes at the camera, or goes away from it.
struct HeadOnBody {
  double length_mm = 0.0;  ///< nose mark to tail mark
  double lengthU95_mm = 0.0;
  double height_mm = 0.0;  ///< back mark to belly mark
};

/// The yaw of a body seen from ahead: asin(d H / (h L)), with d how far the tail stands beside the nose, h
/// the height in the picture, made smooth over time as the body comes nearer, H and L the true ones. One
/// swing is one wobble.
Series headOnYaw_deg(const Track& track, std::span<const double> time_s, const Rectification& picture,
                     const HeadOnBody& body);

/// Rate, angle and evenness of the wobble from ahead or from behind. Uncertainty as a wobble's from above,
/// the size of both ends by the height's and the length's in quadrature. Pure; on any thread.
void readHeadOnWobble(const Series& yaw_deg, double bodyLength_px, double height_px, const HeadOnBody& body,
                      ReadingSheet& sheet);

}  // namespace fin
