// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/exchange: words of agile-fin-pass/1, in the order of their enumerations.
#pragma once

#include <array>
#include <string_view>

namespace fin {

inline constexpr std::array<std::string_view, 4> kPulls{"right", "left", "up", "down"};
inline constexpr std::array<std::string_view, 4> kSeenFrom{"side", "behind", "ahead", "above"};

}  // namespace fin
