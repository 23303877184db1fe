// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/readings: how the readings of twitches and hops are written.
#pragma once

#include <vector>

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"
#include "core/readings/twitch_motion.h"

namespace fin {

/// What the movements of a pass are called, and the readings that tell their cadence.
struct TwitchWords {
  const char* many;
  ReadingId count;
  ReadingId interval;
  ReadingId variation;
};

/// Writes medians over the twitches (or hops) of a pass with their uncertainty: their spread, the scale and
/// the placing of the marks in quadrature. From fewer than 3 everything is poor.
class TwitchSheet {
 public:
  TwitchSheet(const PassTraces& traces, TwitchWords words, ReadingSheet& sheet)
      : traces_(traces), words_(words), sheet_(sheet) {}

  void give(ReadingId id, double value, std::vector<UncertaintyPart> parts, double n);
  /// `floor` is the part that no averaging removes, in the reading's unit. Refused, for `why`, without
  /// values.
  void median(ReadingId id, const std::vector<double>& values, std::vector<UncertaintyPart> floor,
              const char* why);
  /// A median length: the scale has its share. `setUncertainty` is what following leaves unsure
  /// of a way (95 %, in the traces' unit).
  void length(ReadingId id, const std::vector<double>& values, const char* why, double setUncertainty);
  void length(ReadingId id, const std::vector<double>& values, const char* why) {
    length(id, values, why, moveU95());
  }
  /// How many, how often, how evenly. Refused where the lure was not seen for a good part of the time; where
  /// it was not for a smaller one, the count is the less sure.
  void cadence(const std::vector<Twitch>& twitches);

  /// How far the way of the body's centre, midway between two marks, may be off (95 %).
  [[nodiscard]] double moveU95() const;
  [[nodiscard]] const PassTraces& traces() const { return traces_; }
  ReadingSheet& sheet() { return sheet_; }

 private:
  const PassTraces& traces_;
  TwitchWords words_;
  ReadingSheet& sheet_;
};

/// Writes down where the twitches are. False, and all of the protocol refused, where there are none, none
/// counts, or a third of the pushes and more begin before the lure has come to rest (where nobody said when
/// they start).
bool canBeRead(const TwitchMotion& motion, const std::vector<Twitch>& twitches, bool said, Protocol protocol,
               TwitchWords words, ReadingSheet& sheet);

}  // namespace fin
