// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <vector>

#include "core/footage/picture.h"
#include "core/units/points.h"

namespace fin {

/// What stands still in a clip: a tile's corner, a scratch in the glass, a leaf on the bottom. A few earlier
/// pictures are kept with where the lure was in them, so that what was there before the lure came is not
/// taken for the lure. Under a moving camera nothing is ever found to stand still.
class StillScene {
 public:
  /// The lure covers `reach_px` about each of its marks.
  explicit StillScene(double reach_px) : reach_px_(reach_px) {}

  /// Call for every picture; few are kept, spread over all of them.
  void remember(const Picture& picture, std::vector<PixelPoint> marks);
  /// The same detail was at this place in a picture in which the lure was elsewhere.
  [[nodiscard]] bool stoodThere(const Picture& now, PixelPoint at, int radius_px) const;

 private:
  struct Kept {
    Picture picture;
    std::vector<PixelPoint> marks;
  };
  double reach_px_;
  std::vector<Kept> kept_;
  std::size_t every_ = 4;  ///< pictures
  std::size_t met_ = 0;
};

}  // namespace fin
