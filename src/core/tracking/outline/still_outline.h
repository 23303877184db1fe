// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/footage/picture.h"
#include "core/tracking/track.h"
#include "core/units/result.h"

namespace fin {

/// The lure's silhouette in a single picture, in which nothing moves, from where a person drew it roughly.
///
/// Model: GrabCut (C. Rother, V. Kolmogorov & A. Blake, "GrabCut": interactive foreground extraction using
/// iterated graph cuts, 2004), as OpenCV has it: what lies well outside of the drawn line is the background's
/// colours, what lies in it the lure's, and the border between is where they part. It misleads where the lure
/// has the colours of what lies behind it. To a pixel; pictures whose lure is longer than 1200 px are looked
/// at smaller. Errors: Lost where what is found does not fill what was drawn. Pure; on any thread.
Result<OutlineSample> outlineInStill(const Picture& picture, const std::vector<PixelPoint>& polygon);

}  // namespace fin
