// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <condition_variable>
#include <deque>
#include <mutex>
#include <thread>

#include "core/footage/frame_source.h"

namespace fin {

/// Frames of another source, read ahead in a thread of its own while the last one is still being worked on.
/// Frames are best asked for one after the other; any other order costs what was read in vain.
class PrefetchingFrameSource : public FrameSource {
 public:
  /// `source` must outlive it, and nobody else may use it meanwhile.
  explicit PrefetchingFrameSource(FrameSource& source);
  ~PrefetchingFrameSource() override = default;
  PrefetchingFrameSource(const PrefetchingFrameSource&) = delete;
  PrefetchingFrameSource& operator=(const PrefetchingFrameSource&) = delete;

  [[nodiscard]] std::size_t frameCount() const override { return source_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return source_.timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override;

 private:
  void readOn(const std::stop_token& stop);

  FrameSource& source_;
  std::mutex mutex_;
  std::condition_variable_any changed_;
  std::size_t first_ = 0;              ///< number of the first frame in ready_, or of the next to be read
  std::deque<Result<Picture>> ready_;  ///< in order
  bool wanted_ = false;                ///< someone has asked for a frame
  std::jthread reader_;                ///< last: it uses the rest
};

}  // namespace fin
