// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/footage/clip_fingerprint.h"
#include "core/footage/clip_index.h"
#include "core/footage/frame_source.h"
#include "core/units/job_control.h"

namespace fin {

struct ClipInfo {
  std::filesystem::path path;
  ClipFingerprint fingerprint;  ///< of the file as it was opened
  std::string container;
  std::string codec;
  int width_px = 0;   ///< as shown
  int height_px = 0;  ///< as shown
  int clockwiseTurn_deg = 0;
  double pixelAspect = 1.0;  ///< width over height of a stored pixel; the picture is shown with square ones
  bool interlaced = false;   ///< a frame holds two pictures, line by line
  bool topFieldFirst = true;
  bool hasSound = false;
  std::optional<Hertz> writtenRate;  ///< the filming rate that the camera wrote into the file
  std::vector<std::string> warnings;
};

/// A clip whose packets have been indexed. Immutable after opening; readers are made from it, one per thread.
///
/// Containers and codecs: what the FFmpeg libraries decode, from local files only (no address is opened).
/// Errors: Unreadable with the file's name, when it is missing, a folder, no clip or without a picture.
class Clip {
 public:
  struct OpenOptions {
    /// Where the indexes of clips looked through before are kept, so that a long clip opens at once; nothing
    /// is kept where it is empty. An index counts only for a file of the same size and hash.
    std::filesystem::path indexFolder;
    JobControl job;
  };
  /// Cancelled where the job was stopped. An index that cannot be kept (a full disk) is a warning.
  static Result<std::shared_ptr<const Clip>> open(const std::filesystem::path& path);
  static Result<std::shared_ptr<const Clip>> open(const std::filesystem::path& path, OpenOptions options);

  /// The same clip read field by field: twice the frames, each from every other line.
  static std::shared_ptr<const Clip> byField(std::shared_ptr<const Clip> clip);

  [[nodiscard]] const ClipInfo& info() const { return info_; }
  [[nodiscard]] const ClipIndex& index() const { return index_; }

  struct ReaderOptions {
    std::size_t cacheBytes = 0;  ///< decoded frames kept for going back and forth; 0 for reading on only
    int threads = 0;             ///< decoder threads; 0 for as many as there are cores
  };
  /// A reader of exact frames. Keeps the clip alive.
  static Result<std::unique_ptr<FrameSource>> reader(std::shared_ptr<const Clip> clip, ReaderOptions options);

 private:
  Clip(ClipInfo info, ClipIndex index) : info_(std::move(info)), index_(std::move(index)) {}

  ClipInfo info_;
  ClipIndex index_;
  std::shared_ptr<const Clip> frames_;  ///< where this one is read field by field: the clip it came from
};

}  // namespace fin
