// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/readings: a silhouette as pixels again.
#pragma once

#include <opencv2/core.hpp>

#include "core/tracking/track.h"

namespace fin {

cv::Rect boundsOf(const OutlineSample& sample);
/// CV_8UC1, 255 on the lure, of a box of the picture.
cv::Mat maskOf(const OutlineSample& sample, const cv::Rect& box);

}  // namespace fin
