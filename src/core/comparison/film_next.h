// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/wishes.h"

namespace fin {

/// What a day is asked: who is best in each property, or how any two rigs differ.
enum class ToSettle { Best, All };

/// What further passes would settle.
struct FilmNext {
  enum class State {
    Nothing,   ///< nothing is compared yet
    TooEarly,  ///< the first look comes after three passes of each rig
    Open,      ///< `open` are worth filming again
    Settled,   ///< told apart, or so alike that no eight passes would
  };
  State state = State::Nothing;
  std::vector<std::string> open;     ///< rigs, as they were first read
  std::vector<std::string> settled;  ///< the other rigs
  std::size_t more = 0;              ///< passes of each
  std::vector<ReadingId> by;         ///< readings that are not settled
};

/// Says which passes would settle most of these wishes. It looks only when every rig has 3, 4, 6 or 8 passes
/// (passes_needed.h), each look at a share of the level, and goes through all looks so far: what was apart
/// once stays apart, who was out stays out. So errors stay as rare as if it had looked once, however often it
/// is asked. Of what is wanted near a target all pairs are asked. What differs by less
/// than is worth having is settled. Readings in words and those of a ladder are
/// not looked at. Pure; on any thread.
FilmNext filmNext(const std::vector<ComparedPass>& passes, const std::vector<Wish>& wishes, ToSettle question,
                  const std::vector<Worth>& worths = {});

}  // namespace fin
