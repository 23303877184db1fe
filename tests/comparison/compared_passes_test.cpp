// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/compared_passes.h"
#include "support/reading_words.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

/// A pull of a rig at a speed, with one more reading.
ComparedPass pull(std::int64_t id, const char* rig, double speed, ReadingId reading, double value,
                  double u95 = 0.1) {
  ComparedPass out;
  out.id = id;
  out.title = "pass " + std::to_string(id);
  out.rig = rig;
  out.showsAction = true;
  out.readings.readings = {{ReadingId::TravelSpeed, speed, "mm/s", 2.0, 100.0},
                           {reading, value, "", u95, 12.0}};
  return out;
}

TEST(ComparedPasses, GiveOneValueForAPassThatSeveralCamerasSaw) {
  std::vector<ComparedPass> passes{pull(1, "a", 250.0, ReadingId::WobbleFrequency, 5.2, 0.4),
                                   pull(2, "a", 250.0, ReadingId::WobbleFrequency, 5.0, 0.1),
                                   pull(3, "a", 250.0, ReadingId::WobbleFrequency, 5.4, 0.6),
                                   pull(4, "a", 250.0, ReadingId::WobbleFrequency, 4.9, 0.1)};
  for (std::size_t i = 0; i < 3; ++i) passes[i].planned = 77;
  const auto rigs = valuesOf(passes, ReadingId::WobbleFrequency);
  ASSERT_EQ(rigs.size(), 1U);
  ASSERT_EQ(rigs[0].values.size(), 2U);
  EXPECT_EQ(rigs[0].values[0].pass, 2) << "the surest of the three";
  EXPECT_EQ(rigs[0].values[1].pass, 4) << "not planned: a pass of its own";
  EXPECT_EQ(rigs[0].values[0].u95, 0.1);
}

TEST(ComparedPasses, OfAnotherCameraFillInWhatTheFirstOneLost) {
  const auto day = [](std::size_t inCommon) {
    std::vector<ComparedPass> passes;
    for (int k = 0; k < 5; ++k) {
      for (const char* camera : {"front", "top"}) {
        const bool front = camera[0] == 'f';
        if (front && k == 4) continue;  // lost
        if (!front && k < 4 && static_cast<std::size_t>(k) >= inCommon) continue;
        passes.push_back(pull(passes.size() + 1, "a", 250.0, ReadingId::WobbleFrequency,
                              (front ? 5.0 : 5.5) * (1.0 + 0.01 * k)));
        passes.back().planned = 70 + k;
        passes.back().camera = camera;
      }
    }
    return valuesOf(passes, ReadingId::WobbleFrequency)[0].values;
  };
  const auto filled = day(3);
  ASSERT_EQ(filled.size(), 5U);
  EXPECT_NEAR(filled.back().value, 5.0 * 1.04, 1e-9) << "as the first one would have read it";
  EXPECT_EQ(day(2).size(), 4U) << "two in common tell too little of how the cameras differ";
}

TEST(ComparedPasses, AreHeldToOneSpeedWhenAsked) {
  std::vector<ComparedPass> passes{pull(1, "a", 240.0, ReadingId::WobbleFrequency, 5.0),
                                   pull(2, "a", -262.0, ReadingId::WobbleFrequency, 5.1),  // to the left
                                   pull(3, "a", 330.0, ReadingId::WobbleFrequency, 6.0),
                                   pull(4, "b", 250.0, ReadingId::WobbleFrequency, 7.0)};
  ComparedPass unmoved = pull(5, "b", 0.0, ReadingId::WobbleFrequency, 8.0);
  unmoved.readings.readings.erase(unmoved.readings.readings.begin());
  passes.push_back(unmoved);
  EXPECT_EQ(speedsOf(passes), (std::vector<double>{250.0, 330.0}));
  const auto near = valuesOf(passes, ReadingId::WobbleFrequency, 250.0);
  ASSERT_EQ(near.size(), 2U);
  EXPECT_EQ(near[0].values.size(), 2U);
  EXPECT_EQ(near[1].values.size(), 2U) << "what was not pulled has no speed that could differ";
  EXPECT_EQ(valuesOf(passes, ReadingId::WobbleFrequency)[0].values.size(), 3U);
}

TEST(ComparedPasses, ListTheReadingsThatHaveNumbers) {
  std::vector<ComparedPass> passes{pull(1, "a", 240.0, ReadingId::WobbleFrequency, 5.0)};
  passes[0].readings.readings.push_back({ReadingId::FallMode, std::string("glide"), "", {}, 3.0});
  EXPECT_EQ(readingsAmong(passes),
            (std::vector<ReadingId>{ReadingId::TravelSpeed, ReadingId::WobbleFrequency}));
  EXPECT_TRUE(readingsAmong({}).empty());
}

TEST(ComparedPasses, MakeNoLostRhythmOfAViewThatShowsNone) {
  std::vector<ComparedPass> passes{
      pull(1, "a", 100.0, ReadingId::WobbleAngle, 2.0), pull(2, "a", 200.0, ReadingId::WobbleAngle, 20.0),
      pull(3, "a", 300.0, ReadingId::RunningDepth, 400.0), pull(4, "a", 400.0, ReadingId::RiseRate, 3.0)};
  passes[2].showsAction = false;  // the same pull from the side
  const auto ladders = laddersOf(passes);
  ASSERT_EQ(ladders.size(), 1U);
  const SpeedLadder ladder = evaluateLadder(ladders[0].second);
  ASSERT_EQ(ladder.rungs.size(), 3U);
  EXPECT_FALSE(ladder.rungs[2].action_deg) << "from above, and no rhythm: that one is lost";
  const Reading* blowout = ladder.readings.find(ReadingId::BlowoutSpeed);
  ASSERT_NE(blowout, nullptr);
  EXPECT_EQ(std::get<double>(blowout->value), 400.0);
}

TEST(ComparedPasses, AreNoLadderAtOneSpeed) {
  EXPECT_TRUE(laddersOf({pull(1, "a", 250.0, ReadingId::WobbleAngle, 20.0),
                         pull(2, "a", 260.0, ReadingId::WobbleAngle, 21.0)})
                  .empty());
}

TEST(ComparedPasses, TellDepthBySpeedAndByLineOut) {
  std::vector<ComparedPass> passes{pull(1, "a", 300.0, ReadingId::RunningDepth, 420.0, 6.0),
                                   pull(2, "a", 150.0, ReadingId::RunningDepth, 250.0, 5.0),
                                   pull(3, "b", 200.0, ReadingId::WobbleAngle, 20.0),
                                   pull(4, "a", 305.0, ReadingId::RunningDepth, 600.0, 6.0)};
  passes[0].lineOut_mm = 10000.0;
  passes[1].lineOut_mm = 10200.0;
  passes[3].lineOut_mm = 20000.0;
  const auto bySpeed = depthsOf(passes, DepthBy::Speed);
  ASSERT_EQ(bySpeed.size(), 2U) << "the pull with twice the line is no point of the same curve";
  ASSERT_EQ(bySpeed[0].points.size(), 2U);
  EXPECT_EQ(bySpeed[0].held, 10000.0);
  EXPECT_EQ(bySpeed[0].points[0].by, 150.0);
  EXPECT_EQ(bySpeed[0].points[1].depth_mm, 420.0);
  EXPECT_EQ(bySpeed[0].points[1].u95_mm, 6.0);
  const auto byLine = depthsOf(passes, DepthBy::LineOut);
  ASSERT_EQ(byLine.size(), 2U) << "one for each speed";
  ASSERT_EQ(byLine[0].points.size(), 2U);
  EXPECT_EQ(byLine[0].held, 300.0);
  EXPECT_EQ(byLine[0].points[1].by, 20000.0);
  EXPECT_EQ(byLine[0].points[1].depth_mm, 600.0);
  passes[0].lineOut_mm.reset();
  EXPECT_EQ(depthsOf(passes, DepthBy::LineOut)[0].points.size(), 1U) << "what was not said is no point";
}

TEST(SpeedLadder, KnowsWhichPassesShowAnAction) {
  const std::vector<MarkSeed> ends{{MarkName::Nose, 0, {}}, {MarkName::Tail, 0, {}}};
  std::vector<MarkSeed> soft = ends;
  soft.push_back({MarkName::Tip, 0, {}});
  EXPECT_TRUE(showsAction(View::Top, ends));
  EXPECT_FALSE(showsAction(View::Side, ends));
  EXPECT_TRUE(showsAction(View::Side, soft));
}

}  // namespace
}  // namespace fin
