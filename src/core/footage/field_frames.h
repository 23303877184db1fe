// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/footage: an interlaced clip, field by field.
#pragma once

#include "core/footage/clip.h"

namespace fin {

/// Every frame gives two pictures of full height, each from its own lines; a line between is the mean of the
/// two beside it, so that a place in the picture is the same in both. Not for a clip that is turned by 90°.
class FieldFrames : public FrameSource {
 public:
  FieldFrames(std::shared_ptr<const Clip> clip, std::unique_ptr<FrameSource> frames)
      : clip_(std::move(clip)), frames_(std::move(frames)) {}

  [[nodiscard]] std::size_t frameCount() const override { return clip_->index().frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t field) const override { return clip_->index().timeOf(field); }
  [[nodiscard]] Result<Picture> frame(std::size_t field) override;

 private:
  std::shared_ptr<const Clip> clip_;
  std::unique_ptr<FrameSource> frames_;
};

}  // namespace fin
