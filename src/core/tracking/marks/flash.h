// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/footage/picture.h"
#include "core/units/points.h"

namespace fin {

/// Mean luma (0 … 255) of a body's middle: a strip from nose to tail, a quarter of their distance wide. None
/// where all of it lies outside the picture.
std::optional<double> brightnessBetween(const Picture& picture, PixelPoint nose, PixelPoint tail);

}  // namespace fin
