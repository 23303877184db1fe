// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace fin {

/// A number in 0 … 1 that depends on two whole numbers alone: what looks random, but is the same every time.
inline double chanceOf(int a, int b) {
  auto h = static_cast<unsigned>(a) * 374761393U + static_cast<unsigned>(b) * 668265263U;
  h = (h ^ (h >> 13U)) * 1274126177U;
  return static_cast<double>((h ^ (h >> 16U)) & 0xffffU) / 65535.0;
}

}  // namespace fin
