// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/frame_walk.h"

#include <algorithm>
#include <vector>

#include "core/footage/cached_frame_source.h"

namespace fin {
namespace {

// Frames held at once on the way back: each such stretch is decoded from the whole picture before it, so that
// short ones are decoded many times over.
constexpr std::size_t kFewestHeld = 48;
constexpr std::size_t kMostHeld = 400;

Result<void> visitOne(std::size_t frame, const Result<Picture>& picture, const JobControl& job,
                      const FrameVisit& visit) {
  if (job.cancelled()) return failure(ErrorCode::Cancelled, "following was stopped");
  if (!picture && picture.error().code != ErrorCode::Damaged) return tl::unexpected(picture.error());
  return visit(frame, picture ? &*picture : nullptr);
}

double share(std::size_t done, std::size_t first, std::size_t last) {
  return static_cast<double>(done) / static_cast<double>(last - first + 1);
}

std::size_t framesHeld(const Result<Picture>& like) {
  return like ? std::clamp(roomForFrames_bytes() / 2 / bytesOf(*like), kFewestHeld, kMostHeld) : kFewestHeld;
}

}  // namespace

Result<void> walkForwards(FrameSource& source, std::size_t first, std::size_t last, const JobControl& job,
                          const FrameVisit& visit) {
  for (std::size_t n = first; n <= last; ++n) {
    if (auto ok = visitOne(n, source.frame(n), job, visit); !ok) return ok;
    job.report(share(n - first + 1, first, last));
  }
  return {};
}

Result<void> walkBackwards(FrameSource& source, std::size_t first, std::size_t last, const JobControl& job,
                           const FrameVisit& visit) {
  std::size_t held = kFewestHeld;
  for (std::size_t end = last + 1; end > first;) {
    const std::size_t begin = std::max(first, end > held ? end - held : 0);
    std::vector<Result<Picture>> chunk;
    for (std::size_t n = begin; n < end; ++n) chunk.push_back(source.frame(n));
    held = framesHeld(chunk.back());
    for (std::size_t n = end; n-- > begin;) {
      if (auto ok = visitOne(n, chunk[n - begin], job, visit); !ok) return ok;
      job.report(share(last - n + 1, first, last));
    }
    end = begin;
  }
  return {};
}

}  // namespace fin
