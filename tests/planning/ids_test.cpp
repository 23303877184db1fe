// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/ids.h"

#include <gtest/gtest.h>

#include <type_traits>

#include "core/planning/rack.h"

namespace fin {
namespace {

// Ids of different kinds are kept apart by the compiler.
static_assert(!std::is_convertible_v<ModelId, RigId>);
static_assert(!std::is_convertible_v<RigId, PlannedPassId>);
static_assert(!std::is_convertible_v<PlannedPassId, PassId>);
static_assert(!std::is_constructible_v<PassId, RigId>);
static_assert(!std::is_convertible_v<RigId, std::int64_t>, "a number is asked for by name");
static_assert(std::is_convertible_v<std::int64_t, RigId>);

TEST(Ids, AreNoneUntilTheyAreGiven) {
  EXPECT_FALSE(RigId());
  EXPECT_TRUE(RigId(3));
  EXPECT_EQ(RigId(3).value(), 3);
  EXPECT_LT(RigId(3), RigId(4));
}

TEST(Rack, FindsByItsOwnKindOfIdAndGivesFreeOnes) {
  Rack rack;
  EXPECT_EQ(rack.nextId(), 1);
  rack.models = {{.id = 7, .name = "Vinto 11"}};
  rack.rigs = {{.id = 9, .model = 7, .name = "7 g head"}};
  EXPECT_EQ(rack.nextId(), 10) << "models and rigs draw from one row of numbers";
  ASSERT_NE(rack.model(7), nullptr);
  EXPECT_EQ(rack.model(9), nullptr);
  EXPECT_EQ(rack.rig(7), nullptr);
  EXPECT_EQ(rack.model(rack.rig(9)->model)->name, "Vinto 11");
  EXPECT_EQ(rack.fullName(*rack.rig(9)), "Vinto 11, 7 g head");
}

}  // namespace
}  // namespace fin
