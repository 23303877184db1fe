// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/holdings.h"

#include <array>

#include "core/units/names.h"

namespace fin {
namespace {

constexpr std::array<std::string_view, 4> kPieceStates{"used", "spare", "worn", "lost"};

}  // namespace

std::string_view toString(PieceState state) {
  return kPieceStates[static_cast<std::size_t>(state)];
}
std::optional<PieceState> pieceStateNamed(std::string_view text) {
  return enumNamed<PieceState>(kPieceStates, text);
}

}  // namespace fin
