// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <optional>
#include <random>

#include "core/readings/pass_traces.h"

namespace fin::test {

/// Where nose and tail are, millimetres along and up.
struct Ends {
  PixelPoint nose;
  PixelPoint tail;
};

/// What is traced of ends that move so against seconds, pulled to the right, at 120 frames a second and half
/// a millimetre a pixel: exactly, or wrong as following and placing by hand are (followed_error.h).
PassTraces tracesOf(const std::function<Ends(double)>& ends, double seconds, View view,
                    std::optional<double> water_mm = {}, std::mt19937* followed = nullptr);

}  // namespace fin::test
