// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <span>

#include "core/tracking/marks/mark_follower.h"
#include "core/tracking/track.h"

namespace fin {

/// Quality of a mark where the ways that were followed to it disagree.
constexpr double kDisagreeQuality = 0.45;

/// How the later of two places between which a mark is followed both ways is known.
enum class EndAnchor {
  Given,  ///< by a person: where the ways agree they are as sure as the surer one
  Found,  ///< on the way on, which they are no surer than
};
/// What the ways on from an earlier and back from a later place make together, written into `on`; both
/// include the two places, which are left as they are. Where the ways agree the nearer one counts more; where
/// they do not the surer one counts, and is doubtful.
void mergeDirections(std::span<MarkFollower::Followed> on, std::span<const MarkFollower::Followed> back,
                     EndAnchor later);

/// How surely a mark is seen on its way on from a person's place, frame by frame.
///
/// Where it was hard to see for a while it may be something else that is seen again: it is followed back from
/// there, and has to arrive where it was surely seen before.
class SlipDetector {
 public:
  /// A person placed it in this frame.
  void begin(std::size_t frame);
  /// What the next frame shows. The stretch over which it was hard to see, when it ends with this frame: from
  /// the last frame in which it was surely seen. None any more once it has slipped.
  std::optional<FrameStretch> add(std::size_t frame, const MarkSample& sample);
  [[nodiscard]] std::size_t lastSure() const { return lastSure_; }

  enum class WayBack { Agrees, Slipped, TellsNothing };
  /// What the way back tells, that arrived as `arrival` where the mark was `known` to be.
  WayBack compare(const MarkSample& known, const MarkSample& arrival);
  /// It is something else that is followed since: nothing tells that it is the mark until a person places it.
  [[nodiscard]] bool slipped() const { return slipped_; }

 private:
  bool weak_ = false;
  bool slipped_ = false;
  std::size_t lastSure_ = 0;
  std::size_t sureFrames_ = 0;  ///< in a row
};

}  // namespace fin
