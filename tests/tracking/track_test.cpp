// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/track.h"

#include <gtest/gtest.h>

#include <numeric>
#include <opencv2/core.hpp>

#include "core/tracking/frame_walk.h"

namespace fin {
namespace {

/// A mark seen where the string has a letter: '+' surely, '?' doubtfully, '.' not at all.
MarkTrack markOf(MarkName name, const std::string& seen) {
  MarkTrack out{name, {}};
  for (const char c : seen) out.samples.push_back({c != '.', {10.0, 20.0}, c == '+' ? 0.9 : 0.3});
  return out;
}

Track trackOf(std::size_t first, const std::vector<std::string>& marks) {
  Track out;
  out.firstFrame = first;
  out.frameCount = marks.front().size();
  for (std::size_t i = 0; i < marks.size(); ++i)
    out.marks.push_back(markOf(static_cast<MarkName>(i), marks[i]));
  return out;
}

using Stretches = std::vector<FrameStretch>;

TEST(DoubtfulStretches, AreWhereAMarkIsDoubtfulOrMissingBetween) {
  EXPECT_TRUE(doubtfulStretches(trackOf(100, {"++++++++++"})).empty());
  EXPECT_EQ(doubtfulStretches(trackOf(100, {"+++??+++++"})), (Stretches{{103, 104}}));
  EXPECT_EQ(doubtfulStretches(trackOf(100, {"++...+++++"})), (Stretches{{102, 104}}));
  EXPECT_TRUE(doubtfulStretches(trackOf(100, {"..++++++.."})).empty())
      << "before it comes and after it has gone it is not missing";
  EXPECT_EQ(doubtfulStretches(trackOf(0, {"?++++?++++", "++++++++++"})), (Stretches{{0, 5}}))
      << "five frames apart are one place to look";
  EXPECT_EQ(doubtfulStretches(trackOf(0, {"?+++++++++", "+++++++++?"})), (Stretches{{0, 0}, {9, 9}}))
      << "of any mark";
}

TEST(Track, CountsWhatIsSeenWholeAndWhatIsBridged) {
  const Track two = trackOf(7, {"+++..+++..", "++++.+++++"});
  EXPECT_EQ(two.followed(), 6U);
  EXPECT_EQ(two.bridged(), 2U) << "the end is no bridge";
  EXPECT_EQ(trackOf(0, {"+.......++"}).bridged(), 0U) << "seven missing are a hole";
  EXPECT_EQ(trackOf(0, {"+......+++"}).bridged(), 6U);
  EXPECT_EQ(trackOf(0, {".........."}).followed(), 0U);
  EXPECT_NE(two.find(MarkName::Tail), nullptr);
  EXPECT_EQ(two.find(MarkName::Belly), nullptr);
}

TEST(Track, CountsTheOutlineWhereThereAreNoMarks) {
  Track track;
  track.frameCount = 4;
  track.outline.resize(4);
  track.outline[1].seen = track.outline[3].seen = true;
  EXPECT_EQ(track.followed(), 2U);
  EXPECT_EQ(track.bridged(), 1U);
}

TEST(MarkNames, AreWordsBothWays) {
  for (const MarkName mark :
       {MarkName::Nose, MarkName::Tail, MarkName::Tip, MarkName::Back, MarkName::Belly, MarkName::Flank})
    EXPECT_EQ(markNamed(toString(mark)), mark);
  EXPECT_FALSE(markNamed("ear"));
}

TEST(HiddenRegion, HidesWithinItsFramesAndItsRim) {
  // An L: the notch at its upper right is open.
  const HiddenRegion region{10, 20, {{0, 0}, {40, 0}, {40, 60}, {100, 60}, {100, 100}, {0, 100}}};
  EXPECT_TRUE(region.hides(10, {20, 50}));
  EXPECT_TRUE(region.hides(20, {90, 80}));
  EXPECT_FALSE(region.hides(15, {90, 30})) << "in the notch";
  EXPECT_FALSE(region.hides(15, {-1, 50}));
  EXPECT_FALSE(region.hides(9, {20, 50}));
  EXPECT_FALSE(region.hides(21, {20, 50}));
}

/// Grey frames that know which were asked for; frame 5 is damaged, from 90 on nothing can be read.
class Counted : public FrameSource {
 public:
  [[nodiscard]] std::size_t frameCount() const override { return 100; }
  [[nodiscard]] Seconds timeOf(std::size_t n) const override { return Seconds(static_cast<double>(n)); }
  [[nodiscard]] Result<Picture> frame(std::size_t n) override {
    if (n == 5) return failure(ErrorCode::Damaged, "torn");
    if (n >= 90) return failure(ErrorCode::Unreadable, "the disk has gone");
    return Picture::fromMat(cv::Mat(4, 4, CV_8UC1, cv::Scalar(static_cast<double>(n))));
  }
};

TEST(FrameWalk, GoesInOrderBothWaysAndGivesNoPictureOfADamagedFrame) {
  Counted source;
  std::vector<std::size_t> seen;
  std::vector<double> shares;
  const JobControl job{{}, [&](double share) { shares.push_back(share); }};
  const FrameVisit visit = [&](std::size_t n, const Picture* picture) -> Result<void> {
    EXPECT_EQ(picture == nullptr, n == 5) << n;
    if (picture != nullptr) {
      EXPECT_EQ(picture->grey().at<uchar>(0, 0), n);
    }
    seen.push_back(n);
    return {};
  };
  std::vector<std::size_t> wanted(78);
  std::iota(wanted.begin(), wanted.end(), 2U);
  ASSERT_TRUE(walkForwards(source, 2, 79, job, visit));
  EXPECT_EQ(seen, wanted);
  EXPECT_EQ(shares.size(), wanted.size());
  EXPECT_TRUE(std::is_sorted(shares.begin(), shares.end()));
  EXPECT_NEAR(shares.back(), 1.0, 1e-12);
  seen.clear();
  shares.clear();
  ASSERT_TRUE(walkBackwards(source, 2, 79, job, visit)) << "in stretches of a few dozen";
  EXPECT_EQ(seen, std::vector<std::size_t>(wanted.rbegin(), wanted.rend()));
  EXPECT_TRUE(std::is_sorted(shares.begin(), shares.end()));
}

TEST(FrameWalk, EndsWhereNothingCanBeReadWhereItIsToldAndWhereTheVisitSaysSo) {
  Counted source;
  std::size_t visits = 0;
  const FrameVisit count = [&](std::size_t, const Picture*) -> Result<void> {
    ++visits;
    return {};
  };
  for (const auto walk : {walkForwards, walkBackwards}) {
    visits = 0;
    EXPECT_EQ(walk(source, 60, 95, {}, count).error().code, ErrorCode::Unreadable);
    std::stop_source stop;
    stop.request_stop();
    visits = 0;
    EXPECT_EQ(walk(source, 10, 20, {stop.get_token(), {}}, count).error().code, ErrorCode::Cancelled);
    EXPECT_EQ(visits, 0U);
    const auto refused = walk(source, 10, 20, {}, [&](std::size_t n, const Picture*) -> Result<void> {
      if (n == 15) return failure(ErrorCode::Lost, "enough");
      return {};
    });
    EXPECT_EQ(refused.error().code, ErrorCode::Lost);
  }
}

}  // namespace
}  // namespace fin
