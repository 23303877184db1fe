// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/prefetching_frame_source.h"

namespace fin {
namespace {

constexpr std::size_t kMostAhead = 8;

/// Nothing may be thrown out of a thread.
Result<Picture> frameOrFault(FrameSource& source, std::size_t frame) {
  try {
    return source.frame(frame);
  } catch (const std::exception& e) {
    return failure(ErrorCode::Broken,
                   std::string("reading a frame went wrong inside the program: ") + e.what());
  }
}

}  // namespace

PrefetchingFrameSource::PrefetchingFrameSource(FrameSource& source)
    : source_(source), reader_([this](const std::stop_token& stop) { readOn(stop); }) {}

Result<Picture> PrefetchingFrameSource::frame(std::size_t frame) {
  std::unique_lock lock(mutex_);
  wanted_ = true;
  if (frame < first_ || frame > first_ + ready_.size()) {
    first_ = frame;
    ready_.clear();
  }
  for (; first_ < frame; ++first_) ready_.pop_front();
  changed_.notify_all();
  changed_.wait(lock, [this] { return !ready_.empty(); });
  Result<Picture> out = std::move(ready_.front());
  ready_.pop_front();
  ++first_;
  changed_.notify_all();
  return out;
}

void PrefetchingFrameSource::readOn(const std::stop_token& stop) {
  std::unique_lock lock(mutex_);
  const auto hasRoom = [this] {
    return wanted_ && ready_.size() < kMostAhead && (ready_.empty() || first_ + ready_.size() < frameCount());
  };
  while (changed_.wait(lock, stop, hasRoom)) {
    const std::size_t next = first_ + ready_.size();
    lock.unlock();
    Result<Picture> picture = frameOrFault(source_, next);
    lock.lock();
    // Meanwhile another place may have been asked for.
    if (next == first_ + ready_.size()) ready_.push_back(std::move(picture));
    changed_.notify_all();
  }
}

}  // namespace fin
