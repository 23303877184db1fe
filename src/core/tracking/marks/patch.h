// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <opencv2/core/mat.hpp>
#include <vector>

#include "core/units/points.h"

namespace fin {

/// How a patch lies in the picture: its centre, its own x axis at `angle_rad` from the picture's x axis
/// (towards y, which points down), and how many pixels of the picture one of its own is.
struct PatchPose {
  PixelPoint centre;
  double angle_rad = 0.0;
  double scale = 1.0;

  /// Where a place in the patch's own axes, from its centre, is in the picture.
  [[nodiscard]] PixelPoint at(PixelPoint own) const;
  [[nodiscard]] PatchPose movedTo(PixelPoint place) const { return {place, angle_rad, scale}; }
};

/// A square of (2·radius+1)² samples one of the pose's pixels apart, by bilinear interpolation, row by row.
/// Past the edge of the picture the nearest pixel is repeated.
std::vector<float> cutPatch(const cv::Mat& grey, const PatchPose& pose, int radius_px);

/// What lies within `reach` of a pose (in its own pixels), cut once for all the looks of one radius that are
/// looked for in it.
class PatchSurroundings {
 public:
  PatchSurroundings(const cv::Mat& grey, const PatchPose& pose, int radius_px, int reach_px);

 private:
  friend class PatchTemplate;
  int reach_px_;
  int wide_;
  std::vector<float> samples_;
  std::vector<float> power_;  // weighted variance about each place
};

/// The look of a small detail, to be found again at other places, brightnesses and contrasts. Samples count
/// by a Gaussian weight about the centre, so that what lies behind the lure matters little.
class PatchTemplate {
 public:
  PatchTemplate(const cv::Mat& grey, const PatchPose& pose, int radius_px);

  [[nodiscard]] int radius() const { return radius_px_; }
  /// How well a place could be told from its neighbours: the smaller eigenvalue of the gradient matrix,
  /// as grey levels per pixel (Shi & Tomasi, Good features to track, 1994). Below about 2 is a blank wall.
  [[nodiscard]] double structure() const { return structure_; }
  /// Weighted normalised correlation, −1 … 1, of the template with samples of the same size; less where they
  /// are much fainter than it.
  [[nodiscard]] double correlation(const std::vector<float>& patch) const;

  struct Peak {
    int dx_px = 0;  ///< in the patch's own axes
    int dy_px = 0;
    double score = 0.0;
  };
  /// Places at whole pixels where the correlation is highest in its neighbourhood, best first, at most
  /// `most`. The surroundings must have been cut for this radius.
  [[nodiscard]] std::vector<Peak> search(const PatchSurroundings& around, std::size_t most) const;

  struct Fit {
    PixelPoint at;
    double score = 0.0;
    bool converged = false;
  };
  /// Sub-pixel place near a pose: least squares on brightness-normalised samples (Lucas & Kanade 1981, in
  /// the inverse form of Baker & Matthews 2004), shift only.
  [[nodiscard]] Fit refine(const cv::Mat& grey, const PatchPose& start) const;

 private:
  [[nodiscard]] float meanOf(const std::vector<float>& patch) const;
  [[nodiscard]] float contrastOf(const std::vector<float>& patch) const;
  [[nodiscard]] std::vector<float> normalised(const std::vector<float>& patch) const;

  int radius_px_;
  float leastContrast_;  ///< grey levels; what is fainter counts as if it had this
  double structure_ = 0.0;
  std::vector<float> weights_;  // sum 1
  std::vector<float> look_;     // weighted mean 0, weighted norm 1
  std::vector<float> weightedLook_;
  std::vector<float> slopeX_;  // of look_, per pixel
  std::vector<float> slopeY_;
};

}  // namespace fin
