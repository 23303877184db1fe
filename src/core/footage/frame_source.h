// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>

#include "core/footage/picture.h"
#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

/// Frames in display order, from 0. Real footage and the rehearsal tank both speak this. For use by one
/// thread at a time.
class FrameSource {
 public:
  virtual ~FrameSource() = default;

  [[nodiscard]] virtual std::size_t frameCount() const = 0;
  /// When frame n was shown, from the clip's first frame, on the clip's own clock.
  [[nodiscard]] virtual Seconds timeOf(std::size_t frame) const = 0;
  /// Exactly frame n. Damaged: this one cannot be decoded, others may. Unreadable: the clip is gone.
  [[nodiscard]] virtual Result<Picture> frame(std::size_t frame) = 0;
  /// All of these frames are at hand: they cost nothing, and several threads may ask for them at once.
  [[nodiscard]] virtual bool holds(std::size_t /*first*/, std::size_t /*last*/) const { return false; }
};

}  // namespace fin
