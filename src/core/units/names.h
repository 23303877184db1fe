// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <array>
#include <optional>
#include <string_view>

namespace fin {

/// The enumerator that a word stands for, where an enumeration's words are listed in its order; none for
/// other words.
template <class Enum, std::size_t N>
std::optional<Enum> enumNamed(const std::array<std::string_view, N>& words, std::string_view word) {
  const auto found = std::find(words.begin(), words.end(), word);
  if (found == words.end()) return std::nullopt;
  return static_cast<Enum>(found - words.begin());
}

}  // namespace fin
