// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/cached_frame_source.h"

#include <unistd.h>
#include <algorithm>
#include <iterator>

namespace fin {
namespace {

constexpr double kShareOfMemory = 0.125;
constexpr double kLeastRoom_bytes = 4e8;
constexpr double kMostRoom_bytes = 2e9;

}  // namespace

std::size_t bytesOf(const Picture& picture) {
  return static_cast<std::size_t>(picture.width()) * static_cast<std::size_t>(picture.height()) * 3 / 2;
}

std::size_t roomForFrames_bytes() {
  const long pages = ::sysconf(_SC_PHYS_PAGES);
  const long page = ::sysconf(_SC_PAGESIZE);
  const double memory = static_cast<double>(std::max(pages, 0L)) * static_cast<double>(std::max(page, 0L));
  return static_cast<std::size_t>(std::clamp(kShareOfMemory * memory, kLeastRoom_bytes, kMostRoom_bytes));
}

Result<Picture> CachedFrameSource::frame(std::size_t frame) {
  if (const auto found = kept_.find(frame); found != kept_.end()) return found->second;
  auto picture = source_.frame(frame);
  if (picture && (kept_.size() + 1) * bytesOf(*picture) <= bytes_) kept_.emplace(frame, *picture);
  return picture;
}

bool CachedFrameSource::holds(std::size_t first, std::size_t last) const {
  const auto from = kept_.lower_bound(first);
  return static_cast<std::size_t>(std::distance(from, kept_.upper_bound(last))) == last - first + 1;
}

}  // namespace fin
