// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/footage/picture.h"
#include "core/tracking/background/backdrop.h"
#include "core/tracking/track.h"

namespace fin {

/// By what a lure is told from what lies behind it.
enum class SegmentationCue {
  Colour,      ///< shadows and dancing light change brightness alone, and do not count
  Brightness,  ///< colour and brightness alike: grey footage, or a lure of the water's own colour
};

/// The lure's silhouette in a part of one picture.
struct Silhouette {
  cv::Rect box;   ///< in the picture
  cv::Mat mask;   ///< CV_8UC1, 255 on the lure
  cv::Mat cover;  ///< CV_32FC1: how much of each pixel the lure covers, 0 … 1

  [[nodiscard]] bool empty() const { return mask.empty(); }
  [[nodiscard]] cv::Rect bounds() const;  ///< of the mask, in the picture
};

/// Where the lure should be: what it looked like last, moved to where it is expected.
struct Expected {
  cv::Rect bounds;
  cv::Mat mask;            ///< CV_8UC1 of the size of bounds
  double reach_px = 8;     ///< how far from there it may be
  bool inOnePart = false;  ///< only the largest part is wanted
};

/// Cuts the lure out of a picture.
///
/// Model: a pixel belongs to the lure where it differs from what lies behind it by several scatters; weakly
/// different ones count where they hang together with strong ones (hysteresis after J. Canny, 1986), so that
/// thin strands stay whole. A thin thing that runs out of the surroundings is the line and is cut off. At the
/// edge a pixel counts by the share that the lure's own colour nearby has in it. It misleads where something
/// else touches the lure, or where the lure has the colours of what lies behind it.
/// An empty silhouette where nothing is found.
Silhouette cutOut(const Picture& picture, Backdrop& backdrop, PixelPoint moved, std::size_t frame,
                  const Expected& expected, SegmentationCue by, const cv::Mat& hidden);

/// The figures of a silhouette, with its outline; `luma` is measured in the picture.
OutlineSample measured(const Silhouette& silhouette, const Picture& picture, double angleBefore_rad);

}  // namespace fin
