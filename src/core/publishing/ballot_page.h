// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/comparison/vote.h"

namespace fin {

/// The clip of an entry, its files relative to the page.
struct BallotClip {
  std::size_t place = 0;  ///< of Vote::rigs
  std::string mp4;
  std::string webm;
};
/// "k3" for place 2: what an entry is called on the page and in a ballot.
std::string ballotCode(std::size_t place);
/// None for a text that is no such code.
std::optional<std::size_t> placeOfBallotCode(const std::string& code);

/// At most so many pairs does one voter see, and about a fifth of them twice.
constexpr std::size_t kMostBallotPairs = 15;

/// A page that asks for the vote, without names: it draws pairs, their order and their sides, keeps what was
/// answered in the browser until all is said, and hands out an `agile-fin-ballot/1`. It fetches nothing but
/// its clips and sends nothing anywhere. At least two clips.
std::string ballotPage(const Vote& vote, const std::vector<BallotClip>& clips);

}  // namespace fin
