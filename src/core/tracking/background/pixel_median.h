// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <opencv2/core/mat.hpp>
#include <vector>

namespace fin {

/// The middle value of every pixel over some pictures of one size and kind; of an even number the upper one.
cv::Mat medianOf(const std::vector<cv::Mat>& pictures);

/// Puts the values of every pixel over some pictures of one size and kind in order, smallest first, in place.
void sortPixels(std::vector<cv::Mat>& pictures);

}  // namespace fin
