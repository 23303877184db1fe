// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <compare>
#include <cstdint>

namespace fin {

/// Which row of its kind. Made from a number as the log gives it; ids of different kinds neither compare nor
/// convert into each other. 0 is none.
template <class Kind>
class Id {
 public:
  constexpr Id() = default;
  constexpr Id(std::int64_t value)
      : value_(value) {}  // NOLINT: a number may become one, never go back unasked

  [[nodiscard]] constexpr std::int64_t value() const { return value_; }
  constexpr explicit operator bool() const { return value_ != 0; }

  friend constexpr auto operator<=>(const Id&, const Id&) = default;

 private:
  std::int64_t value_ = 0;
};

using ModelId = Id<struct Model>;
using RigId = Id<struct Rig>;
using PlannedPassId = Id<struct PlannedPass>;  ///< of the day's sheet
using DayId = Id<struct DayPlan>;
using PieceId = Id<struct Piece>;      ///< of a model
using EditionId = Id<struct Edition>;  ///< of a rig
using PriceId = Id<struct Price>;
using ClaimId = Id<struct Claim>;
using WaterId = Id<struct WaterBody>;
using EventId = Id<struct RunEvent>;  ///< of a day on the water
using RuleId = Id<struct TieRule>;
using PassId = Id<struct LoggedPass>;  ///< a clip's, in the log

}  // namespace fin
