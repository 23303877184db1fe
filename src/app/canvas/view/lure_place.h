// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPointF>
#include <optional>

#include "core/tracking/track.h"

namespace fin::app {

/// Where in the picture the lure is about a frame: the mean of its marks (of its outline where it has none)
/// over `around` frames to either side, so that a picture cut there does not shake with it. None where it was
/// not seen in any of them.
std::optional<QPointF> lurePlace(const Track& track, std::size_t frame, std::size_t around);

}  // namespace fin::app
