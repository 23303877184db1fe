// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <cstdint>
#include <iosfwd>
#include <optional>
#include <vector>

#include "core/units/quantity.h"

namespace fin {

/// The time stamps of a clip, read from its packets without decoding. Frames count in display order from
/// the first that is shown; frames hidden by an edit list are not counted.
///
/// Accuracy: time stamps are exact (whole ticks of the container's clock).
class ClipIndex {
 public:
  struct Packet {
    std::int64_t pts = 0;
    std::int64_t dts = 0;
    bool key = false;
    bool hidden = false;    ///< decoded but not shown (edit list)
    std::int64_t pos = -1;  ///< where it begins in the file, bytes
  };
  /// From this byte on the recorder's clock had started anew; `shift` ticks bring it back onto one line.
  struct Restart {
    std::int64_t pos = 0;
    std::int64_t shift = 0;
  };

  /// Packets in the order of the file, restarts allowed for. A tick is tick_s seconds.
  ClipIndex(std::vector<Packet> packets, double tick_s, std::vector<Restart> restarts = {});

  /// The same clip read field by field: two pictures for every frame, half way apart in time.
  [[nodiscard]] ClipIndex byField() const;

  /// As bytes of this machine, to be read back by readFrom(); nothing where they are cut off or of another
  /// version.
  void writeTo(std::ostream& out) const;
  static std::optional<ClipIndex> readFrom(std::istream& in);

  [[nodiscard]] std::size_t frameCount() const { return pts_.size(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const;
  /// The first frame's time stamp on the container's own clock.
  [[nodiscard]] Seconds startOnFile() const { return Seconds(static_cast<double>(pts_.front()) * tick_s_); }
  [[nodiscard]] std::int64_t ptsOf(std::size_t frame) const { return pts_[frame]; }
  /// The frame with this time stamp, to within a third of the smaller spacing beside it; none if there is
  /// none.
  [[nodiscard]] std::optional<std::size_t> frameAt(std::int64_t pts) const;
  /// The frame shown at a time from the first frame (the last one that has begun).
  [[nodiscard]] std::size_t frameShownAt(Seconds time) const;

  /// Key packets from which frame n can be reached, the nearest first.
  [[nodiscard]] std::vector<Packet> keysBefore(std::size_t frame) const;
  /// The group of pictures a frame belongs to: the number of key packets at or before it.
  [[nodiscard]] std::size_t groupOf(std::size_t frame) const;

  /// Mean rate of the regular stretches: spacings within half of the median one.
  [[nodiscard]] Hertz regularRate() const;
  /// Spacings differ by more than clock rounding explains: a variable frame rate.
  [[nodiscard]] bool uneven() const;

  /// The longest stretch without frames: more than five usual spacings. None where there is no such gap.
  struct Gap {
    std::size_t after = 0;  ///< the frame before it
    Seconds length;
  };
  [[nodiscard]] std::optional<Gap> longestGap() const;

  /// The first frame that stands at or after a byte of the file.
  [[nodiscard]] std::size_t firstAtByte(std::int64_t pos) const;
  [[nodiscard]] const std::vector<Restart>& restarts() const { return restarts_; }
  /// What to add to the time stamps of a packet at this byte.
  [[nodiscard]] std::int64_t shiftAt(std::int64_t pos) const;

 private:
  ClipIndex() = default;

  std::vector<std::int64_t> pts_;  // sorted, shown frames only
  std::vector<Packet> keys_;       // sorted by pts
  std::vector<Restart> restarts_;  // sorted by pos
  double tick_s_ = 1.0;
};

}  // namespace fin
