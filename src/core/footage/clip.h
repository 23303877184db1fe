// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/footage/clip_index.h"
#include "core/footage/frame_source.h"

namespace fin {

struct ClipInfo {
  std::filesystem::path path;
  std::string container;
  std::string codec;
  int width_px = 0;   ///< as shown
  int height_px = 0;  ///< as shown
  int clockwiseTurn_deg = 0;
  bool hasSound = false;
  std::vector<std::string> warnings;
};

/// A clip whose packets have been indexed. Immutable after opening; readers are made from it, one per thread.
///
/// Containers and codecs: what the FFmpeg libraries decode, from local files only (no address is opened).
/// Errors: Unreadable with the file's name, when it is missing, a folder, no clip or without a picture.
class Clip {
 public:
  static Result<std::shared_ptr<const Clip>> open(const std::filesystem::path& path);

  [[nodiscard]] const ClipInfo& info() const { return info_; }
  [[nodiscard]] const ClipIndex& index() const { return index_; }

  struct ReaderOptions {
    std::size_t cacheBytes = 0;  ///< decoded frames kept for going back and forth; 0 for reading on only
    int threads = 0;             ///< decoder threads; 0 for as many as there are cores
  };
  /// A reader of exact frames. Keeps the clip alive.
  static Result<std::unique_ptr<FrameSource>> reader(std::shared_ptr<const Clip> clip, ReaderOptions options);

 private:
  friend class DecodedFrames;
  Clip(ClipInfo info, ClipIndex index) : info_(std::move(info)), index_(std::move(index)) {}

  ClipInfo info_;
  ClipIndex index_;
};

}  // namespace fin
