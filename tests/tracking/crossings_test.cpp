// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/crossings.h"

#include <gtest/gtest.h>

#include "support/small_scene.h"

namespace fin {
namespace {

/// A pull to and fro in one clip: the lure leaves the picture, and comes back the way it went.
class ToAndFro : public FrameSource {
 public:
  explicit ToAndFro(RehearsalTank& tank) : tank_(tank) {}
  [[nodiscard]] std::size_t frameCount() const override { return 2 * tank_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t n) const override {
    return Seconds(static_cast<double>(n) / 120.0);
  }
  [[nodiscard]] Result<Picture> frame(std::size_t n) override { return tank_.frame(inTank(n)); }
  [[nodiscard]] std::size_t inTank(std::size_t n) const {
    return n < tank_.frameCount() ? n : 2 * tank_.frameCount() - 1 - n;
  }

 private:
  RehearsalTank& tank_;
};

TEST(Crossings, FindsTheWayBackAndFollowsIt) {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(2.6);  // out of the picture after about two seconds
  RehearsalTank tank(scene);
  ToAndFro source(tank);
  const PassRequest said = requestFor(tank, {});
  const FollowRequest request{said.marks, said.firstFrame, source.frameCount() - 1, {}};
  const auto track = followMarks(source, request);
  ASSERT_TRUE(track);
  EXPECT_FALSE(track->find(MarkName::Nose)->samples.back().seen) << "leaving the picture ends the run";
  const auto crossings = findCrossings(source, request, *track);
  ASSERT_TRUE(crossings) << crossings.error().message;
  ASSERT_EQ(crossings->size(), 1U);
  const Crossing& back = crossings->front();
  EXPECT_GT(back.frames.first, tank.frameCount());
  EXPECT_GT(back.frames.last - back.frames.first, 150U);
  for (const MarkSeed& s : back.seeds)
    EXPECT_LT(length(s.at - tank.markAt(s.name, source.inTank(s.frame))).value(), 1.5) << toString(s.name);
}

TEST(Crossings, FindsNoneWhereTheLureStaysAway) {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(3.0);
  RehearsalTank tank(scene);
  const PassRequest said = requestFor(tank, {});
  const FollowRequest request{said.marks, said.firstFrame, tank.frameCount() - 1, {}};
  const auto track = followMarks(tank, request);
  const auto crossings = findCrossings(tank, request, *track);
  ASSERT_TRUE(crossings);
  EXPECT_TRUE(crossings->empty());
}

}  // namespace
}  // namespace fin
