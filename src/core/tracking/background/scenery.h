// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <opencv2/core/mat.hpp>
#include <optional>
#include <vector>

#include "core/tracking/track.h"

namespace fin {

/// Details of what lies behind a lure, and how they move together in the picture.
using SceneryPoints = std::vector<cv::Point2f>;

/// u = a x − b y + c, v = b x + a y + d.
struct Similarity {
  double a = 1.0, b = 0.0, c = 0.0, d = 0.0;
  std::size_t agreeing = 0;  ///< details

  [[nodiscard]] PixelPoint operator()(PixelPoint p) const {
    return {a * p.x_px - b * p.y_px + c, b * p.x_px + a * p.y_px + d};
  }
};

/// The shift, turn and growth by which most details moved: least squares on the nearer half of them, again
/// and again (P. Rousseeuw & K. Van Driessen, Computing LTS regression, 2006), then reweighted with Tukey's
/// biweight (P. Holland & R. Welsch, 1977). Nothing where too few agree.
std::optional<Similarity> fitSimilarity(const SceneryPoints& from, const SceneryPoints& to);

/// What to keep clear of: the lure's middle and half a square's side.
struct LureSurroundings {
  PixelPoint middle;
  double reach_px = 40.0;

  [[nodiscard]] bool holds(const cv::Point2f& p) const;
};
/// About all marks that are seen in the i-th frame of a track; `last` where none is.
LureSurroundings surroundingsIn(const Track& track, std::size_t i, const LureSurroundings& last);

/// Details of a picture away from the lure, spread over it so that one strong thing (a ruler) does not
/// outshine all the rest.
SceneryPoints sceneryOf(const cv::Mat& grey, const LureSurroundings& lure);

/// Details followed from one picture to another (pyramidal flow; J.-Y. Bouguet, 2000): pairs that come back
/// to where they were.
struct SceneryFlow {
  SceneryPoints from, to;
};
/// `guess` is where they may be found, as many as `details`; empty where nothing is known.
SceneryFlow flowOf(const cv::Mat& before, const cv::Mat& now, const SceneryPoints& details,
                   const SceneryPoints& guess = {});

}  // namespace fin
