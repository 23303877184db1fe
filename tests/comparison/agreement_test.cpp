// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/agreement.h"

#include <gtest/gtest.h>

#include <numeric>

namespace fin {
namespace {

const std::vector<double> kX{402, 411, 395, 428, 440, 419, 455, 470};
const std::vector<double> kY{398, 415, 391, 433, 431, 425, 449, 476};

std::vector<ReadTwice> pairs(double u95 = 5.0) {
  std::vector<ReadTwice> out;
  for (std::size_t i = 0; i < kX.size(); ++i) out.push_back({kX[i], kY[i], u95, u95});
  return out;
}

TEST(Agreement, IsThatOfTheWorkedExample) {
  const auto plain = agreementOf(pairs(), false);
  ASSERT_TRUE(plain);
  EXPECT_NEAR(plain->from, -15.079402, 1e-6);
  EXPECT_NEAR(plain->to, 15.579402, 1e-6);
  EXPECT_NEAR(plain->concordance, 0.973779, 1e-6);
  const auto ratios = agreementOf(pairs(), true);
  EXPECT_TRUE(ratios->byRatio);
  EXPECT_NEAR(1.0 + ratios->from, 0.965936, 1e-6);
  EXPECT_NEAR(1.0 + ratios->to, 1.036798, 1e-6);
}

TEST(Agreement, HoldsDifferencesAgainstWhatEachClaims) {
  // They differ by 4 4 4 5 9 6 6 6; 5 and 5 allow 7.07.
  EXPECT_EQ(agreementOf(pairs(5.0), false)->within, 7U);
  EXPECT_EQ(agreementOf(pairs(3.0), false)->within, 3U) << "4.24";
}

TEST(Agreement, StaysHonestWithLittle) {
  EXPECT_FALSE(agreementOf({{1, 1, 0, 0}, {2, 2, 0, 0}}, true)) << "two pairs have no scatter to speak of";
  const auto below = agreementOf({{-1, 1, 0, 0}, {2, 2, 0, 0}, {3, 4, 0, 0}}, true);
  EXPECT_FALSE(below->byRatio) << "a value is not above nought";
  EXPECT_EQ(agreementOf({{2, 2, 0, 0}, {2, 2, 0, 0}, {2, 2, 0, 0}}, true)->concordance, 1.0);
}

TEST(Agreement, OfTwoCamerasIsOverPassesThatBothRead) {
  std::vector<ComparedPass> passes;
  for (std::size_t i = 0; i < 2 * kX.size(); ++i) {
    const bool near = i < kX.size();
    if (!near && i % kX.size() == 7) continue;  // lost
    ComparedPass& pass = passes.emplace_back();
    pass.id = static_cast<std::int64_t>(i + 1);
    pass.planned = static_cast<std::int64_t>(i % kX.size() + 1);
    pass.camera = near ? "near" : "far";
    pass.readings.readings = {{ReadingId::FallRate, near ? kX[i] : kY[i - kX.size()], "mm/s", 5.0, 60.0}};
  }
  const auto agree = camerasAgree(passes, ReadingId::FallRate);
  ASSERT_EQ(agree.size(), 1U);
  EXPECT_EQ(agree[0].first, "near") << "it read more passes";
  EXPECT_EQ(agree[0].second, "far");
  EXPECT_EQ(agree[0].agreement.n, 7U);
  EXPECT_TRUE(agree[0].agreement.byRatio) << "as fall rates are compared";
  EXPECT_TRUE(camerasAgree(passes, ReadingId::WobbleAngle).empty());
}

TEST(RankAgreement, IsExactUpToEight) {
  const auto r = rankAgreement(kX, {3, 5, 2, 6, 8, 5, 9, 7});
  ASSERT_TRUE(r);
  EXPECT_NEAR(r->correlation, 0.922172, 1e-6);
  EXPECT_NEAR(r->p, 0.002480, 5e-7);
}

TEST(RankAgreement, OfMoreIsDrawnAndNeverNought) {
  std::vector<double> x(12);
  std::iota(x.begin(), x.end(), 1.0);
  const auto same = rankAgreement(x, x);
  EXPECT_NEAR(same->correlation, 1.0, 1e-12);
  EXPECT_NEAR(same->p, 1.0 / 10001.0, 1e-4);
  EXPECT_EQ(rankAgreement(x, x)->p, same->p) << "the same each time";
  EXPECT_FALSE(rankAgreement({1, 2}, {1, 2}));
  EXPECT_FALSE(rankAgreement({1, 2, 3}, {4, 4, 4})) << "who sees no difference has no order";
}

}  // namespace
}  // namespace fin
