// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/weight_study.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

class WeightStudy : public testing::Test {
 protected:
  WeightStudy() {
    rack_.models = {{.id = 1, .name = "Soft"}, {.id = 2, .name = "Other"}};
    rack_.rigs = {{.id = 11, .model = 1, .name = "7 g", .head_g = 7.0},
                  {.id = 12, .model = 1, .name = "4 g", .head_g = 4.0},
                  {.id = 13, .model = 2, .name = "4 g", .head_g = 4.0}};
  }
  void fall(RigId rig, double rate, const char* mode, double drop = 0.0) {
    const Rig* known = rack_.rig(rig);
    ComparedPass pass{static_cast<std::int64_t>(passes_.size() + 1),
                      "fall",
                      known != nullptr ? rack_.fullName(*known) : "stranger",
                      {},
                      Protocol::Fall};
    pass.readings.readings = {{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0},
                              {ReadingId::FallMode, std::string(mode), "text", {}, 60.0}};
    if (drop > 0.0) pass.readings.readings.push_back({ReadingId::SettleDistance, drop, "mm", 2.0, 60.0});
    passes_.push_back(std::move(pass));
  }
  [[nodiscard]] std::vector<MeasuredFall> falls() const {
    return fallsAmong(passes_, [this](const ComparedPass& pass) -> const Rig* {
      for (const Rig& rig : rack_.rigs) {
        if (rack_.fullName(rig) == pass.rig) return &rig;
      }
      return nullptr;
    });
  }
  [[nodiscard]] WeightQuestion question(const MeasuredFall& fall) const {
    WeightQuestion out;
    out.fallRate = fall.rate;
    out.measured = weightsOf(*rack_.rig(*fall.rigId), Grams(0.0));
    return out;
  }

  Rack rack_;
  std::vector<ComparedPass> passes_;
};

TEST_F(WeightStudy, GathersTheFallOfEachRig) {
  fall(11, 198.0, "plumb", 46.0);
  fall(11, 202.0, "plumb");
  fall(99, 90.0, "glide");
  const auto all = falls();
  ASSERT_EQ(all.size(), 2U);
  EXPECT_NEAR(all[0].rate.value, 200.0, 1e-9);
  EXPECT_EQ(all[0].rate.n, 2.0);
  EXPECT_EQ(all[0].rigId, 11);
  EXPECT_EQ(all[0].mode, "plumb");
  // A body that comes to 95 % of v after the drop has τ = drop / (v ln cosh artanh 0.95).
  EXPECT_NEAR(all[0].timeConstant.value(), 46.0 / (198.0 * std::log(std::cosh(std::atanh(0.95)))), 2e-4);
  EXPECT_FALSE(all[1].rigId);
  EXPECT_EQ(all[1].timeConstant.value(), 0.0);
}

TEST_F(WeightStudy, HoldsThePredictionAgainstAnotherRigOfTheModel) {
  fall(11, 200.0, "plumb");
  fall(12, 152.0, "plumb");
  fall(13, 150.0, "plumb");  // another model
  const auto all = falls();
  const auto checks = checkAgainst(all, all[0], question(all[0]), rack_);
  ASSERT_EQ(checks.size(), 1U);
  // Lead on lead: the rate goes by the root of the weight.
  EXPECT_NEAR(checks[0].predicted.value, 200.0 * std::sqrt(4.0 / 7.0), 1e-6);
  EXPECT_TRUE(checks[0].within);
  EXPECT_TRUE(checks[0].otherMode.empty());
}

TEST_F(WeightStudy, SaysByHowMuchItMissesAndThatTheOtherFallsOtherwise) {
  fall(11, 200.0, "plumb");
  fall(12, 120.0, "glide");
  const auto all = falls();
  const auto checks = checkAgainst(all, all[0], question(all[0]), rack_);
  ASSERT_EQ(checks.size(), 1U);
  EXPECT_FALSE(checks[0].within);
  EXPECT_NEAR(checks[0].miss, 200.0 * std::sqrt(4.0 / 7.0) / 120.0 - 1.0, 1e-6);
  EXPECT_EQ(checks[0].otherMode, "glide");
}

TEST_F(WeightStudy, ChecksNothingForARigThatTheRackDoesNotKnow) {
  fall(99, 200.0, "plumb");
  fall(12, 120.0, "glide");
  const auto all = falls();
  EXPECT_TRUE(checkAgainst(all, all[0], {}, rack_).empty());
}

}  // namespace
}  // namespace fin
