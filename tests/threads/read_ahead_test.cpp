// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/prefetching_frame_source.h"

#include <gtest/gtest.h>

#include <opencv2/core.hpp>

#include "core/footage/cached_frame_source.h"

namespace fin {
namespace {

/// Twenty frames, each as grey as its number; the seventh is damaged, and at the ninth something breaks.
class Numbered : public FrameSource {
 public:
  [[nodiscard]] std::size_t frameCount() const override { return 20; }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override {
    return Seconds(static_cast<double>(frame));
  }
  [[nodiscard]] Result<Picture> frame(std::size_t n) override {
    if (n >= frameCount()) return failure(ErrorCode::BadRequest, "past the end", "frame");
    if (n == 7) return failure(ErrorCode::Damaged, "torn", "frame");
    if (n == 9) throw std::runtime_error("the size has changed");
    return Picture::fromMat(cv::Mat(4, 4, CV_8UC1, cv::Scalar(static_cast<double>(n))));
  }
};

TEST(PrefetchingFrameSource, GivesWhatItsSourceGivesInAnyOrder) {
  Numbered source;
  PrefetchingFrameSource ahead(source);
  for (const std::size_t n : {0U, 1U, 2U, 3U, 6U, 7U, 8U, 19U, 4U, 5U, 5U, 18U, 19U, 0U}) {
    const auto picture = ahead.frame(n);
    ASSERT_EQ(picture.has_value(), n != 7) << n;
    if (picture) {
      EXPECT_EQ(picture->grey().at<uchar>(0, 0), n);
    } else {
      EXPECT_EQ(picture.error().code, ErrorCode::Damaged);
    }
  }
  EXPECT_FALSE(ahead.frame(20));
}

TEST(PrefetchingFrameSource, TellsWhatIsThrownAheadWhereItIsAskedFor) {
  Numbered source;
  PrefetchingFrameSource ahead(source);
  ASSERT_TRUE(ahead.frame(8));
  const auto broken = ahead.frame(9);
  ASSERT_FALSE(broken);
  EXPECT_EQ(broken.error().code, ErrorCode::Broken);
  EXPECT_NE(broken.error().message.find("the size has changed"), std::string::npos);
  EXPECT_TRUE(ahead.frame(10)) << "and goes on";
}

TEST(CachedFrameSource, HoldWhatWasAskedForAsFarAsThereIsRoom) {
  Numbered source;
  CachedFrameSource kept(source, 5 * 4 * 4 * 3 / 2);  // five of these pictures
  for (std::size_t n = 0; n < 5; ++n) ASSERT_TRUE(kept.frame(n));
  EXPECT_TRUE(kept.holds(0, 4));
  ASSERT_TRUE(kept.frame(5));
  EXPECT_FALSE(kept.holds(0, 5));
  EXPECT_FALSE(source.holds(0, 0)) << "a source of its own promises nothing";
}

}  // namespace
}  // namespace fin
