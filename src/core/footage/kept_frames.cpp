// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/kept_frames.h"

namespace fin {
namespace {

/// Luma, and colour at half the size.
std::size_t bytesOf(const Picture& picture) {
  return static_cast<std::size_t>(picture.width()) * static_cast<std::size_t>(picture.height()) * 3 / 2;
}

}  // namespace

Result<Picture> KeptFrames::frame(std::size_t frame) {
  if (const auto found = kept_.find(frame); found != kept_.end()) return found->second;
  auto picture = source_.frame(frame);
  if (picture && (kept_.size() + 1) * bytesOf(*picture) <= bytes_) kept_.emplace(frame, *picture);
  return picture;
}

}  // namespace fin
