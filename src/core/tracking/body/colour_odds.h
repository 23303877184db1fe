// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>
#include <vector>

namespace fin {

/// Whether a colour is more usual on a body or elsewhere.
///
/// Model: two histograms over three figures of a colour, smoothed from bin to bin; a colour that was hardly
/// met in either says nothing.
class ColourOdds {
 public:
  using Colour = std::array<float, 3>;

  /// The bins' range: nearly all that is seen, and the body's own colours.
  void setRange(const std::vector<Colour>& all, const std::vector<Colour>& body);
  /// Nothing is learnt where either is empty.
  void learn(const std::vector<Colour>& body, const std::vector<Colour>& rest);

  [[nodiscard]] bool learnt() const { return !odds_.empty(); }
  /// −1 never met on the body … 1 met there alone.
  [[nodiscard]] float of(const Colour& colour) const { return odds_[binOf(colour)]; }

 private:
  [[nodiscard]] std::size_t binOf(const Colour& colour) const;
  [[nodiscard]] std::vector<float> histogram(const std::vector<Colour>& colours) const;

  Colour lowest_{};
  Colour binsPerUnit_{};
  std::vector<float> odds_;
};

}  // namespace fin
