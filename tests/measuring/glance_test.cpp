// SPDX-License-Identifier: GPL-3.0-or-later
// What a person sees of a pass that was measured by itself.
#include "core/measuring/glance.h"

#include <gtest/gtest.h>

#include "core/measuring/find_marks.h"
#include "core/measuring/measure.h"
#include "support/small_scene.h"

namespace fin {
namespace {

Track trackOf(std::vector<double> qualities, std::size_t firstFrame) {
  Track track;
  track.firstFrame = firstFrame;
  track.frameCount = qualities.size();
  MarkTrack nose{MarkName::Nose, {}}, tail{MarkName::Tail, {}};
  for (const double quality : qualities) {
    nose.samples.push_back({true, {10.0, 10.0}, 1.0});
    tail.samples.push_back({quality > 0.0, {5.0, 10.0}, quality});
    if (quality == 0.0) nose.samples.back().seen = false;
  }
  track.marks = {nose, tail};
  return track;
}

TEST(FramesToSee, AreTheFirstTheMiddleAndTheLeastSureOne) {
  const FramesToSee seen = framesToSee(trackOf({0.0, 0.9, 0.9, 0.8, 0.9, 0.3, 0.9, 0.9, 0.0}, 100));
  EXPECT_EQ(seen.frames, (std::vector<std::size_t>{101, 104, 105}));
  EXPECT_EQ(seen.doubt, 2U);
  const FramesToSee early = framesToSee(trackOf({0.9, 0.2, 0.9, 0.9, 0.9}, 0));
  EXPECT_EQ(early.frames, (std::vector<std::size_t>{0, 1, 2}));
  EXPECT_EQ(early.doubt, 1U);
}

TEST(FramesToSee, AreAsManyAsThereAre) {
  EXPECT_TRUE(framesToSee(trackOf({0.0, 0.0}, 0)).frames.empty());
  const FramesToSee one = framesToSee(trackOf({0.0, 0.4, 0.0}, 7));
  EXPECT_EQ(one.frames, std::vector<std::size_t>{8});
  EXPECT_FALSE(one.doubt);
}

class GlanceTest : public testing::Test {
 protected:
  void SetUp() override {
    tank_ = std::make_unique<RehearsalTank>(test::smallPull());
    ASSERT_TRUE(filmRehearsal(test::smallPull(), folder_ / "pull.mp4"));
    request_ = requestFor(*tank_, folder_ / "pull.mp4");
    auto clip = openClip(request_);
    ASSERT_TRUE(clip) << clip.error().message;
    clip_ = *clip;
  }
  [[nodiscard]] MeasuringOrder order() const { return {request_, clip_->info().fingerprint, nullptr}; }

  test::TemporaryFolder folder_;
  std::unique_ptr<RehearsalTank> tank_;
  PassRequest request_;
  std::shared_ptr<const Clip> clip_;
};

TEST_F(GlanceTest, ShowsTheMarksWhereTheyWereFollowedTo) {
  MeasuringOrder measuring = order();
  const auto measured = measure(measuring, clip_);
  ASSERT_TRUE(measured) << measured.error().message;
  measuring.earlier = measured->measurement;
  const auto glance = glanceAt(measuring, clip_);
  ASSERT_TRUE(glance) << glance.error().message;
  ASSERT_EQ(glance->stills.size(), 3U);
  ASSERT_EQ(glance->pictures.size(), 3U);
  ASSERT_TRUE(glance->result);
  for (const Still& still : glance->stills) {
    ASSERT_EQ(still.marks.size(), 2U);
    for (const auto& [name, at] : still.marks)
      EXPECT_LT(length(at - tank_->markAt(name, still.frame)).value(), 1.5) << still.frame;
  }
}

TEST_F(GlanceTest, ShowsThePlainClipWhereNothingWasFound) {
  request_.marks.clear();
  const auto glance = glanceAt(order(), clip_);
  ASSERT_TRUE(glance) << glance.error().message;
  EXPECT_FALSE(glance->result) << "nothing is followed for a look";
  ASSERT_EQ(glance->stills.size(), 3U);
  EXPECT_TRUE(glance->stills[1].marks.empty());
}

TEST_F(GlanceTest, AKnownLengthMakesUpForARulerThatIsMissing) {
  const double mmPerPixel =
      request_.scale->length.value() / length(request_.scale->to - request_.scale->from).value();
  const double pixels = length(tank_->markAt(MarkName::Nose, 60) - tank_->markAt(MarkName::Tail, 60)).value();
  request_.marks.clear();
  request_.scale.reset();
  const Millimetres whole(1.12 * test::smallPull().lure.length_mm);  // its body goes on beyond both marks
  const auto found = findMarks(request_, clip_, {nullptr, whole});
  ASSERT_TRUE(found) << found.error().message;
  ASSERT_TRUE(found->request.ownLength);
  EXPECT_NEAR(found->request.ownLength->length.value(), pixels * mmPerPixel, 0.07 * pixels * mmPerPixel);
  EXPECT_NEAR(found->request.ownLength->u95 / found->request.ownLength->length, 0.07, 1e-9);
  request_.ownLength = OwnLength{Millimetres(70.0)};
  EXPECT_EQ(findMarks(request_, clip_, {nullptr, whole})->request.ownLength->length, Millimetres(70.0))
      << "what was said stays";
}

TEST_F(GlanceTest, AClipThatEndsWhileItIsReadIsSaidSo) {
  const auto file = folder_ / "pull.mp4";
  std::filesystem::resize_file(file, std::filesystem::file_size(file) / 2);
  request_.marks.clear();
  const auto found = findMarks(request_, clip_, {});
  ASSERT_FALSE(found);
  EXPECT_EQ(found.error().code, ErrorCode::Unreadable);
  EXPECT_TRUE(found.error().message.find("pull.mp4") != std::string::npos) << found.error().message;
}

}  // namespace
}  // namespace fin
