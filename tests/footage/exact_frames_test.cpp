// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <fstream>
#include <opencv2/core.hpp>
#include <random>

#include "core/footage/clip.h"
#include "core/footage/clip_print.h"
#include "core/footage/clip_writer.h"
#include "support/small_scene.h"

namespace fin {
namespace {

constexpr int kBlock_px = 16;
constexpr int kBits = 8;

/// A frame that carries its own number as a row of black and white blocks.
cv::Mat numbered(std::size_t n) {
  cv::Mat image(96, 160, CV_8UC3, cv::Scalar(90, 110, 120));
  for (int bit = 0; bit < kBits; ++bit) {
    const cv::Scalar colour = ((n >> bit) & 1U) != 0 ? cv::Scalar::all(235) : cv::Scalar::all(20);
    image(cv::Rect(16 + bit * kBlock_px, 32, kBlock_px, 32)).setTo(colour);
  }
  return image;
}

std::size_t numberIn(const Picture& picture) {
  std::size_t n = 0;
  for (int bit = 0; bit < kBits; ++bit) {
    if (picture.grey().at<uchar>(48, 16 + bit * kBlock_px + 8) > 128) n |= std::size_t{1} << bit;
  }
  return n;
}

struct Kind {
  std::string ending;
  bool uneven;
  int bFrames;
};

void PrintTo(const Kind& kind, std::ostream* out) {
  *out << kind.ending << (kind.uneven ? " uneven" : " even");
}

double timeOf(const Kind& kind, std::size_t n) {
  return static_cast<double>(n) / 50.0 + (kind.uneven ? 0.006 * static_cast<double>(n % 3) : 0.0);
}

std::filesystem::path film(const test::TemporaryFolder& folder, const Kind& kind, std::size_t frames) {
  const auto path = folder / ("clip" + kind.ending);
  ClipWriterOptions options;
  options.width_px = 160;
  options.height_px = 96;
  options.rate = Hertz(50.0);
  options.group = 40;
  options.bFrames = kind.bFrames;
  const auto writer = ClipWriter::create(path, options);
  EXPECT_TRUE(writer) << writer.error().message;
  for (std::size_t n = 0; n < frames; ++n) EXPECT_TRUE((*writer)->add(numbered(n), Seconds(timeOf(kind, n))));
  EXPECT_TRUE((*writer)->finish());
  return path;
}

class ExactFrames : public testing::TestWithParam<Kind> {};

TEST_P(ExactFrames, ComeInAnyOrderAsTheyDoOneAfterTheOther) {
  const test::TemporaryFolder folder;
  constexpr std::size_t kFrames = 150;
  const auto clip = Clip::open(film(folder, GetParam(), kFrames));
  ASSERT_TRUE(clip) << clip.error().message;
  ASSERT_EQ((*clip)->index().frameCount(), kFrames);
  const auto source = Clip::reader(*clip, {});
  ASSERT_TRUE(source);
  std::mt19937 random(5);
  std::uniform_int_distribution<std::size_t> any(0, kFrames - 1);
  for (int i = 0; i < 60; ++i) {
    const std::size_t n = i < 3 ? kFrames - 1 - static_cast<std::size_t>(i) : any(random);
    const auto picture = (*source)->frame(n);
    ASSERT_TRUE(picture) << picture.error().message;
    EXPECT_EQ(numberIn(*picture), n);
  }
}

TEST_P(ExactFrames, KeepTheirOwnTimeStamps) {
  const test::TemporaryFolder folder;
  const auto clip = Clip::open(film(folder, GetParam(), 30));
  ASSERT_TRUE(clip);
  for (std::size_t n = 0; n < 30; ++n) {
    // Matroska counts whole milliseconds; the others are finer.
    EXPECT_NEAR((*clip)->index().timeOf(n).value(), timeOf(GetParam(), n), 0.00051) << n;
  }
}

INSTANTIATE_TEST_SUITE_P(Containers, ExactFrames,
                         testing::Values(Kind{".mp4", false, 2}, Kind{".mp4", true, 2}, Kind{".mov", true, 3},
                                         Kind{".mkv", true, 2}, Kind{".avi", false, 0}),
                         [](const auto& kind) {
                           return kind.param.ending.substr(1) + (kind.param.uneven ? "Uneven" : "Even");
                         });

TEST(Clip, RefusesWhatIsNoClipAndSaysWhich) {
  const test::TemporaryFolder folder;
  test::write(folder / "notes.mp4", "This is a shopping list, not a film.\n");
  test::write(folder / "empty.mp4", "");
  for (const char* name : {"notes.mp4", "empty.mp4", "missing.mp4", "."}) {
    const auto clip = Clip::open(folder / name);
    ASSERT_FALSE(clip) << name;
    EXPECT_EQ(clip.error().code, ErrorCode::Unreadable);
    EXPECT_FALSE(clip.error().message.empty());
  }
}

TEST(Clip, ReadsATruncatedClipAsFarAsItGoes) {
  const test::TemporaryFolder folder;
  const auto whole = film(folder, {".mkv", false, 2}, 150);
  std::filesystem::resize_file(whole, std::filesystem::file_size(whole) / 2);
  const auto clip = Clip::open(whole);
  ASSERT_TRUE(clip) << clip.error().message;
  const std::size_t frames = (*clip)->index().frameCount();
  EXPECT_GT(frames, 30U);
  EXPECT_LT(frames, 150U);
  const auto source = Clip::reader(*clip, {});
  const auto picture = (*source)->frame(frames / 2);
  ASSERT_TRUE(picture);
  EXPECT_EQ(numberIn(*picture), frames / 2);
}

TEST(ClipPrint, KnowsAMovedClipAndNoticesAChangedOne) {
  const test::TemporaryFolder folder;
  const auto path = film(folder, {".mp4", false, 2}, 40);
  const auto before = printOf(path);
  std::filesystem::copy_file(path, folder / "moved.mp4");
  EXPECT_EQ(*printOf(folder / "moved.mp4"), *before);
  std::fstream(path, std::ios::in | std::ios::out | std::ios::binary).seekp(200).put('x');
  EXPECT_NE(*printOf(path), *before);
}

}  // namespace
}  // namespace fin
