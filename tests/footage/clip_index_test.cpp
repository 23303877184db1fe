// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_index.h"

#include <gtest/gtest.h>

#include <fstream>
#include <opencv2/core.hpp>

#include "core/footage/clip.h"
#include "core/footage/clip_writer.h"
#include "support/small_scene.h"

namespace fin {
namespace {

using Packet = ClipIndex::Packet;

TEST(ClipIndex, CountsShownFramesInTheOrderOfTheirTimes) {
  // Decoding order I P B B with the last frames first hidden by an edit list.
  const ClipIndex index({{0, 0, true, true},
                         {30, 10, false, false},
                         {10, 20, false, true},
                         {20, 30, false, false},
                         {40, 40, true, false},
                         {50, 50, false, false}},
                        0.01);
  ASSERT_EQ(index.frameCount(), 4U);
  EXPECT_DOUBLE_EQ(index.timeOf(0).value(), 0.0);
  EXPECT_DOUBLE_EQ(index.timeOf(1).value(), 0.10);
  EXPECT_EQ(index.ptsOf(0), 20);
}

TEST(ClipIndex, LeavesOutWhatLiesBeforeTheFirstKeyFrame) {
  const ClipIndex index({{0, 0, false, false}, {10, 10, true, false}, {20, 20, false, false}}, 1.0);
  EXPECT_EQ(index.frameCount(), 2U);
}

TEST(ClipIndex, FindsTheKeyFramesThatLeadToAFrame) {
  std::vector<Packet> packets;
  for (std::int64_t i = 0; i < 30; ++i) packets.push_back({i, i, i % 10 == 0, false});
  const ClipIndex index(packets, 1.0);
  const auto keys = index.keysBefore(25);
  ASSERT_EQ(keys.size(), 3U);
  EXPECT_EQ(keys.front().pts, 20);
  EXPECT_EQ(keys.back().pts, 0);
  EXPECT_NE(index.groupOf(9), index.groupOf(10));
}

TEST(ClipIndex, FindsFramesByTheirTimesAndNoneInAGap) {
  const ClipIndex index(
      {{0, 0, true, false}, {100, 100, false, false}, {200, 200, false, false}, {900, 900, false, false}},
      0.001);
  EXPECT_EQ(index.frameAt(100), 1U);
  EXPECT_EQ(index.frameAt(105), 1U);  // a rounded stamp
  EXPECT_FALSE(index.frameAt(150));   // half way belongs to neither
  EXPECT_EQ(index.frameShownAt(Seconds(0.35)), 2U);
  EXPECT_EQ(index.frameShownAt(Seconds(99.0)), 3U);
  EXPECT_EQ(index.frameShownAt(Seconds(-1.0)), 0U);
}

TEST(ClipIndex, TakesTheRateFromTheRegularStretches) {
  std::vector<Packet> packets;
  std::int64_t t = 0;
  for (int i = 0; i < 60; ++i, t += i == 30 ? 500 : 20) packets.push_back({t, t, i == 0, false});
  const ClipIndex index(packets, 0.001);
  EXPECT_NEAR(index.regularRate().value(), 50.0, 1e-9);
  EXPECT_TRUE(index.uneven());
}

TEST(DamagedClip, KeepsEveryFrameAfterTheDamageInItsPlace) {
  const test::TemporaryFolder folder;
  RehearsalScene scene = test::smallPull();
  RehearsalTank tank(scene);
  ClipWriterOptions options{.width_px = 480, .height_px = 270, .rate = Hertz(120.0), .group = 20};
  const auto writer = ClipWriter::create(folder / "a.mp4", options);
  for (std::size_t n = 0; n < 120; ++n) ASSERT_TRUE((*writer)->add(tank.frame(n)->rgb(), tank.timeOf(n)));
  ASSERT_TRUE((*writer)->finish());
  const auto size = std::filesystem::file_size(folder / "a.mp4");
  {
    std::fstream file(folder / "a.mp4", std::ios::in | std::ios::out | std::ios::binary);
    file.seekp(static_cast<std::streamoff>(size * 2 / 5));
    const std::string rubbish(size / 20, '\x5A');
    file.write(rubbish.data(), static_cast<std::streamsize>(rubbish.size()));
  }
  const auto clip = Clip::open(folder / "a.mp4");
  ASSERT_TRUE(clip);
  const auto source = Clip::reader(*clip, {});
  std::size_t damaged = 0;
  for (std::size_t n = 0; n < 120; ++n) {
    const auto picture = (*source)->frame(n);
    if (!picture) {
      EXPECT_EQ(picture.error().code, ErrorCode::Damaged);
      ++damaged;
      continue;
    }
    if (n < 100) continue;
    // The last groups are whole again: each is the frame it says it is, not one further on.
    const auto off = [&](std::size_t other) {
      return cv::norm(picture->grey(), tank.frame(other)->grey(), cv::NORM_L1);
    };
    EXPECT_LT(off(n), off(n - 2)) << n;
  }
  EXPECT_GT(damaged, 0U);
  EXPECT_LT(damaged, 60U);
}

}  // namespace
}  // namespace fin
