// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <vector>

#include "core/tracking/marks/patch.h"

namespace fin {

/// How a mark may look: the looks a person pointed at, which are never forgotten, and looks met on the way
/// (turned, lit or blurred otherwise), which come and go.
class MarkAppearance {
 public:
  MarkAppearance(const cv::Mat& grey, const PatchPose& pose, int radius_px);

  /// A further look that a person pointed at.
  void addGiven(const cv::Mat& grey, const PatchPose& pose);
  /// A look met on the way; takes the place of the one longest unused when there are many.
  void addMet(const cv::Mat& grey, const PatchPose& pose);

  struct Candidate {
    PixelPoint at;  ///< to the pixel
    double score = 0.0;
    std::size_t look = 0;
  };
  /// Places near a pose that look like the mark, best first.
  [[nodiscard]] std::vector<Candidate> candidates(const cv::Mat& grey, const PatchPose& pose,
                                                  int reach_px) const;

  /// How much a place looks like the mark, and which look fits it best.
  [[nodiscard]] Candidate judged(const cv::Mat& grey, const PatchPose& pose) const;

  /// How much a place looks like the mark as a person pointed at it.
  [[nodiscard]] double likenessOfGiven(const cv::Mat& grey, const PatchPose& pose) const;

  /// Sub-pixel place near a candidate; the look that fits best decides.
  struct Found {
    PixelPoint at;
    double score = 0.0;
  };
  [[nodiscard]] Found refine(const cv::Mat& grey, const PatchPose& pose, std::size_t look);

  [[nodiscard]] double structure() const { return looks_.front().patch.structure(); }
  [[nodiscard]] int radius() const { return looks_.front().patch.radius(); }

 private:
  struct Look {
    PatchTemplate patch;
    bool given = true;
    std::size_t lastUse = 0;
  };
  std::vector<Look> looks_;
  std::size_t clock_ = 0;
};

}  // namespace fin
