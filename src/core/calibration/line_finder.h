// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/calibration/tank_frame.h"
#include "core/footage/picture.h"

namespace fin {

enum class LineKind { Level, Upright };

/// A straight edge that runs through much of the picture.
struct FoundLine {
  PixelLine line;            ///< from edge to edge of the picture
  double support = 0.0;      ///< share of its length that shows an edge there
  double residual_px = 0.0;  ///< root mean square of the edge about the line
};

/// Proposals for a waterline, a bottom (level) or a plumb line (upright): straight edges within 15° of the
/// picture's own directions, the best supported first, at most eight. None is taken without a person's word.
///
/// Method: ridges of the gradient across the line, a Hough transform (R. O. Duda and P. E. Hart, 1972), then
/// a robust straight fit through the edge's sub-pixel places.
std::vector<FoundLine> findLines(const Picture& picture, LineKind kind);

}  // namespace fin
