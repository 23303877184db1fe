// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <map>
#include <opencv2/core/mat.hpp>
#include <optional>
#include <stop_token>
#include <vector>

#include "core/tracking/body/body_shape.h"
#include "core/tracking/body/colour_odds.h"
#include "core/tracking/body/reduced_film.h"

namespace fin {

/// Tells the lure's body from what lies behind it, pixel by pixel, in a reduced film.
///
/// Model: light that dances, flickers or steps changes all colours of a place by one factor; so brightness
/// counts as its logarithm over that of its surroundings, and colour as its share of brightness. Two cues:
/// how far a pixel is from the median over the clip at its place, in scatters there; and whether its colour
/// is more usual on the body, as it was when its marks were placed, than elsewhere (a histogram of either).
/// It misleads where the lure has the colours of what lies behind and hardly moves.
class BodyEvidence {
 public:
  using Planes = BodyView::Planes;

  /// `seed` is where the body lies in frame `seedFrame` of the film. `known` says where it lies in others,
  /// as far as that is known; there it is not taken for background. With `moving` nothing is learnt place by
  /// place. Stopped, it is not to be used.
  using KnownPose = std::function<std::optional<AxisPose>(std::size_t frame)>;
  BodyEvidence(const ReducedFilm& film, std::size_t seedFrame, const AxisPose& seed, const KnownPose& known,
               bool moving, const std::stop_token& stop);

  /// Of a part of a frame; past the picture's edge nothing is known. Kept while there is room.
  [[nodiscard]] BodyView at(std::size_t frame, const cv::Rect& box);

 private:
  void learnBackground(const KnownPose& known, double body_px, const std::stop_token& stop);
  void learnColours(std::size_t seedFrame, const AxisPose& seed);
  [[nodiscard]] cv::Mat whereItGoes(cv::Size size, const KnownPose& known, double body_px) const;
  [[nodiscard]] cv::Mat fromBackground(const Planes& features, const cv::Rect& box) const;
  [[nodiscard]] cv::Mat fromColours(const Planes& features) const;

  [[nodiscard]] BodyView seen(std::size_t frame, const cv::Rect& box);
  [[nodiscard]] const Planes& lightOf(std::size_t frame);

  const ReducedFilm& film_;
  /// Over a place's surroundings, in coarse cells, of frames looked at.
  std::map<std::size_t, Planes> light_;
  Planes middle_;       ///< of what lies behind
  Planes overScatter_;  ///< one over how far that scatters
  cv::Mat known_;       ///< CV_8UC1: where the two mean something; empty where nothing is learnt
  ColourOdds odds_;     ///< as the body looked when its marks were placed
  std::map<std::size_t, BodyView> kept_;
  std::size_t kept_bytes_ = 0;
};

}  // namespace fin
