// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/heads.h"
#include "core/comparison/pooled_steps.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

HeadFall fall(double head_g, double rate_mm_s, const char* mode = "plumb") {
  return {.name = "on " + std::to_string(static_cast<int>(head_g)) + " g",
          .head_g = head_g,
          .headU95_g = 0.0,
          .rate_mm_s = rate_mm_s,
          .rateU95_mm_s = 0.015 * rate_mm_s,
          .mode = mode,
          .attitude_deg = 40.0,
          .glideRatio = 0.05,
          .kick_deg = std::nullopt};
}

TEST(Heads, TellTheBodysWeightAndAThirdHeadsFall) {
  const std::vector<HeadFall> falls{fall(5.0, 200.0), fall(2.0, 150.0)};
  const auto body = bodyWeight(falls);
  ASSERT_TRUE(body) << body.error().message;
  EXPECT_NEAR(body->value, 1.857, 5e-4);
  EXPECT_NEAR(body->u95, 0.578, 5e-4);
  const auto third = fallRateOnHead(falls, 10.0);
  ASSERT_TRUE(third);
  EXPECT_NEAR(third->value, 263.0, 0.05);
  EXPECT_EQ(third->grade, Grade::Fair) << "outside of those filmed";
  EXPECT_EQ(fallRateOnHead(falls, 3.0)->grade, Grade::Good);
}

TEST(Heads, AreOnlyBelievedWhereTheyFallAlike) {
  const auto why = [](std::vector<HeadFall> falls) { return bodyWeight(falls).error().message; };
  EXPECT_NE(why({fall(2.0, 150.0)}).find("one head only"), std::string::npos);
  EXPECT_NE(why({fall(2.0, 150.0), fall(5.0, 200.0, "glide")}).find("two ways"), std::string::npos);
  EXPECT_NE(why({fall(2.0, 150.0), fall(2.4, 160.0)}).find("1.3 times"), std::string::npos);
  auto hangs = fall(5.0, 200.0);
  hangs.attitude_deg = 55.0;
  EXPECT_NE(why({fall(2.0, 150.0), hangs}).find("10°"), std::string::npos);
  EXPECT_NE(why({fall(2.0, 150.0), fall(3.5, 150.0), fall(5.0, 200.0)}).find("line"), std::string::npos);
  EXPECT_TRUE(bodyWeight(std::vector{fall(2.0, 150.0), fall(3.5, 176.8), fall(5.0, 200.0)}));
}

TEST(Heads, TellFromWhichFallOnTheTailKicks) {
  const std::vector<double> rates{80.0, 120.0, 160.0, 220.0, 260.0};
  EXPECT_NEAR(*firstReaching(rates, nonDecreasing({1.0, 4.0, 22.0, 30.0, 30.0}), 6.0), 124.4, 0.05);
  std::vector<HeadFall> falls;
  const double angles[] = {1.0, 4.0, 22.0, 30.0, 30.0};
  for (std::size_t i = 0; i < rates.size(); ++i) {
    // Rates of a body of 1.857 g that falls at 150 mm/s on 2 g.
    const double square = rates[i] * rates[i] / (150.0 * 150.0);
    falls.push_back(fall(square * 3.857 - 1.857, rates[i]));
    falls.back().kick_deg = angles[i];
  }
  const auto kick = kickOnset(falls);
  ASSERT_TRUE(kick) << kick.error().message;
  EXPECT_NEAR(kick->rate.value, 124.4, 0.05);
  ASSERT_TRUE(kick->head);
  EXPECT_NEAR(kick->head->value, 0.80, 5e-3);
}

}  // namespace
}  // namespace fin
