// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/footage: frames of a clip by number.
#pragma once

#include <list>
#include <unordered_map>
#include <unordered_set>

#include "core/footage/av_handles.h"
#include "core/footage/clip.h"

namespace fin {

/// Reads on where it can; otherwise seeks to the key frame before the frame asked for, checks by time
/// stamps where it landed, and falls back a group where that was too late. Frames are told apart by their
/// time stamps alone, so a damaged stretch never shifts the frames after it.
class DecodedFrames : public FrameSource {
 public:
  static Result<std::unique_ptr<FrameSource>> open(std::shared_ptr<const Clip> clip,
                                                   Clip::ReaderOptions options);

  [[nodiscard]] std::size_t frameCount() const override { return clip_->index().frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return clip_->index().timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t n) override;

 private:
  DecodedFrames(std::shared_ptr<const Clip> clip, Clip::ReaderOptions options)
      : clip_(std::move(clip)), options_(options) {}

  Result<void> restart();
  bool nextPacket();
  bool readsOnTo(std::size_t n) const;
  bool seekBefore(std::size_t n);
  bool landsBefore(const ClipIndex::Packet& key);
  Result<Picture> decodeUntil(std::size_t n);
  bool feed();
  void remember(std::size_t n, const Picture& picture);

  std::shared_ptr<const Clip> clip_;
  Clip::ReaderOptions options_;
  av::OpenedInput input_;
  av::Codec codec_;
  av::PacketPtr packet_{av_packet_alloc()};
  bool packetWaits_ = false;  ///< packet_ holds what a seek landed on
  bool ended_ = false;
  std::size_t next_ = 0;  ///< all frames from the last start point up to here have come out or are damaged
  std::unordered_set<std::size_t> damaged_;

  struct Kept {
    std::size_t frame;
    Picture picture;
  };
  std::list<Kept> recent_;  // newest first
  std::unordered_map<std::size_t, std::list<Kept>::iterator> kept_;
};

}  // namespace fin
