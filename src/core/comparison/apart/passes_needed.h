// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>
#include <map>
#include <optional>

namespace fin {

/// How many passes of each rig tell a difference from nothing four times in five, where so many rigs are
/// compared with each other and passes scatter alike: by the non-central t, with the bound of the studentised
/// range; with two rigs by Student's t. Keeps bounds that it has found: one object serves one thread.
class PassesNeeded {
 public:
  explicit PassesNeeded(std::size_t rigs) : rigs_(rigs) {}
  /// The chance that a difference of so many standard deviations of a pass is told with so many passes each.
  double power(double size, std::size_t passes);
  /// The least that have a power of 80 %, two at least; none up to `most`.
  std::optional<std::size_t> operator()(double size, std::size_t most = 100);

 private:
  double bound(std::size_t passes);

  std::size_t rigs_;
  std::map<std::size_t, double> bounds_;
};

/// When a day may be looked at on the way, and what share of the level each look may spend, so that errors
/// stay as rare as with one look at the end. Fixed on the sheet beforehand; found by simulation
/// (bench/telling_apart.cpp).
struct Look {
  std::size_t passes = 0;  ///< of each rig
  double share = 1.0;
};
inline constexpr std::array<Look, 4> kLooks{{{3, 0.25}, {4, 0.35}, {6, 0.5}, {8, 0.65}}};
/// The look that a day with so many passes of each rig has come to; none before the first.
std::optional<Look> lookAt(std::size_t passes);

}  // namespace fin
