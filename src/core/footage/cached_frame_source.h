// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <map>

#include "core/footage/frame_source.h"

namespace fin {

/// Memory for frames that are gone over more than once, for all that is followed at a time: an eighth of the
/// machine's, but at least 400 MB and at most 2 GB.
std::size_t roomForFrames_bytes();
/// What a frame takes of it: luma, and colour at half the size.
std::size_t bytesOf(const Picture& picture);

/// Frames of another source, of which the first ones that are asked for are kept, as many as fit into a share
/// of the memory. For work that goes over the same frames more than once: a least recently used cache would
/// lose each frame just before it is wanted again.
class CachedFrameSource : public FrameSource {
 public:
  /// `source` must outlive it.
  CachedFrameSource(FrameSource& source, std::size_t bytes) : source_(source), bytes_(bytes) {}

  [[nodiscard]] std::size_t frameCount() const override { return source_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return source_.timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override;
  [[nodiscard]] bool holds(std::size_t first, std::size_t last) const override;
  /// Makes room: these are not wanted again.
  void forgetBefore(std::size_t frame) { kept_.erase(kept_.begin(), kept_.lower_bound(frame)); }

 private:
  FrameSource& source_;
  std::size_t bytes_;
  std::map<std::size_t, Picture> kept_;
};

}  // namespace fin
