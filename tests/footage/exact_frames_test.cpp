// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>
#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>
#include <random>

#include "core/footage/clip.h"
#include "core/footage/clip_fingerprint.h"
#include "support/numbered_film.h"
#include "support/small_scene.h"

namespace fin {
namespace {

/// A clip of numbered frames in one container and coding. Without a coding it comes from our own writer.
struct Kind {
  std::string name;
  std::string ending;
  bool uneven = false;
  int bFrames = 2;
  std::string coding;  ///< for the ffmpeg program
};

void PrintTo(const Kind& kind, std::ostream* out) {
  *out << kind.name;
}

constexpr std::size_t kFrames = 150;

double timeOf(const Kind& kind, std::size_t n) {
  return static_cast<double>(n) / 50.0 + (kind.uneven ? 0.006 * static_cast<double>(n % 3) : 0.0);
}

std::filesystem::path filmed(const test::TemporaryFolder& folder, const Kind& kind) {
  const auto path = folder / ("clip" + kind.ending);
  const auto made = kind.coding.empty() ? path : folder / "source.mkv";
  test::film(made, {.bFrames = kind.bFrames, .time_s = [kind](std::size_t n) { return timeOf(kind, n); }});
  if (!kind.coding.empty()) {
    EXPECT_TRUE(test::ffmpeg("-i " + made.string() + " " + kind.coding + " " + path.string()));
  }
  return path;
}

class ExactFrames : public testing::TestWithParam<Kind> {};

TEST_P(ExactFrames, ComeInAnyOrderAsTheyDoOneAfterTheOther) {
  const test::TemporaryFolder folder;
  const auto clip = Clip::open(filmed(folder, GetParam()));
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
    EXPECT_EQ(test::numberIn(*picture), n);
  }
}

TEST_P(ExactFrames, KeepTheirOwnTimeStamps) {
  const test::TemporaryFolder folder;
  const auto clip = Clip::open(filmed(folder, GetParam()));
  ASSERT_TRUE(clip);
  for (std::size_t n = 0; n < kFrames; n += 7) {
    // Matroska counts whole milliseconds; the others are finer.
    EXPECT_NEAR((*clip)->index().timeOf(n).value(), timeOf(GetParam(), n), 0.00051) << n;
  }
}

INSTANTIATE_TEST_SUITE_P(
    Containers, ExactFrames,
    testing::Values(Kind{"Mp4", ".mp4"}, Kind{"Mp4Uneven", ".mp4", true}, Kind{"Mov", ".mov", true, 3},
                    Kind{"Matroska", ".mkv", true}, Kind{"Avi", ".avi", false, 0},
                    Kind{"Vp9", ".webm", false, 2, "-c:v libvpx-vp9 -cpu-used 8 -b:v 1M -g 40"},
                    Kind{"Hevc", ".mp4", false, 2,
                         "-c:v libx265 -preset ultrafast -x265-params log-level=none:keyint=40:bframes=3"},
                    Kind{"TenBit", ".mkv", false, 2, "-c:v libx264 -pix_fmt yuv422p10le -g 40"},
                    Kind{"Prores", ".mov", false, 2, "-c:v prores_ks"},
                    Kind{"TransportStream", ".ts", false, 2, "-c:v libx264 -g 40 -bf 2 -output_ts_offset 7"}),
    [](const auto& kind) { return kind.param.name; });

/// Within a grey level on average: rounding, and colour that is stored at half the size.
TEST(Picture, IsMadeSmallerAlikeHoweverItsColoursAreStored) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "plain.mkv"));
  const auto smallOf = [&](const std::string& file, cv::Size size) {
    const auto clip = Clip::open(folder / file);
    const auto source = Clip::reader(*clip, {});
    return (*source)->frame(60)->reduced(size);
  };
  const cv::Size size(160, 90);
  const cv::Mat plain = smallOf("plain.mkv", size);
  ASSERT_EQ(plain.type(), CV_8UC3);
  const auto farOff = [&plain](const cv::Mat& other) {
    cv::Mat off;
    cv::absdiff(plain, other, off);
    const cv::Scalar mean = cv::mean(off);
    return std::max({mean[0], mean[1], mean[2]});
  };
  const std::string from = "-i " + (folder / "plain.mkv").string() + " -c:v ffv1 ";
  for (const std::string kind : {"yuv420p", "yuv420p10le", "yuv422p", "yuv444p"}) {
    ASSERT_TRUE(test::ffmpeg(from + "-pix_fmt " + kind + " " + (folder / (kind + ".mkv")).string()));
    EXPECT_LT(farOff(smallOf(kind + ".mkv", size)), 1.0) << kind;
  }
  // Lying on its side, and turned upright by what stands in the file.
  ASSERT_TRUE(test::ffmpeg("-i " + (folder / "plain.mkv").string() +
                           " -vf transpose=2 -c:v libx264 -qp 4 -pix_fmt yuv420p " +
                           (folder / "lying.mp4").string()));
  ASSERT_TRUE(test::ffmpeg("-i " + (folder / "lying.mp4").string() + " -c copy -metadata:s:v:0 rotate=270 " +
                           (folder / "turned.mp4").string()));
  EXPECT_LT(farOff(smallOf("turned.mp4", size)), 1.0);
}

TEST(Picture, TellsThePartsOfATurnedOrStretchedOneAsTheWhole) {
  const test::TemporaryFolder folder;
  const std::string made = "-f lavfi -i testsrc2=size=320x180:duration=0.2:rate=25,gblur=2 -pix_fmt yuv420p ";
  const auto pictureOf = [&](const std::string& file) {
    const auto source = Clip::reader(*Clip::open(folder / file), {});
    return *(*source)->frame(2);
  };
  const auto whole = [](const Picture& p) { return p.colours({0, 0, p.width(), p.height()}); };
  cv::Mat asStored;
  for (const std::string shape : {"1", "4/3"}) {
    ASSERT_TRUE(test::ffmpeg(made + "-vf setsar=" + shape + " -c:v libx264 -qp 4 -y " +
                             (folder / "made.mp4").string()));
    const Picture upright = pictureOf("made.mp4");
    if (asStored.empty()) asStored = whole(upright);
    cv::Mat shown;
    cv::resize(asStored, shown, {upright.width(), upright.height()}, 0.0, 0.0, cv::INTER_LINEAR);
    for (const int quarters : {0, 1, 2, 3}) {
      if (quarters > 0) cv::rotate(shown, shown, cv::ROTATE_90_CLOCKWISE);
      // What stands in the file is how far it lies turned.
      ASSERT_TRUE(test::ffmpeg("-i " + (folder / "made.mp4").string() + " -c copy -metadata:s:v:0 rotate=" +
                               std::to_string((360 - 90 * quarters) % 360) + " -y " +
                               (folder / "turned.mp4").string()));
      const Picture picture = pictureOf("turned.mp4");
      ASSERT_EQ(shown.size(), cv::Size(picture.width(), picture.height())) << quarters << ' ' << shape;
      const cv::Rect box(21, 33, 57, 44);
      cv::Mat off;
      cv::absdiff(picture.colours(box), shown(box), off);
      const cv::Scalar mean = cv::mean(off);
      EXPECT_LT(std::max({mean[0], mean[1], mean[2]}), 0.5) << quarters << " quarters, pixels " << shape;
    }
  }
}

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
  const auto whole = filmed(folder, {"Cut", ".mkv"});
  std::filesystem::resize_file(whole, std::filesystem::file_size(whole) / 2);
  const auto clip = Clip::open(whole);
  ASSERT_TRUE(clip) << clip.error().message;
  const std::size_t frames = (*clip)->index().frameCount();
  EXPECT_GT(frames, 30U);
  EXPECT_LT(frames, 150U);
  const auto source = Clip::reader(*clip, {});
  const auto picture = (*source)->frame(frames / 2);
  ASSERT_TRUE(picture);
  EXPECT_EQ(test::numberIn(*picture), frames / 2);
}

TEST(Clip, PutsARecordingWhoseClockStartsAnewOnOneLineAndSaysSo) {
  const test::TemporaryFolder folder;
  std::ofstream joined(folder / "joined.ts", std::ios::binary);
  for (const auto& [name, first, frames] : {std::tuple("a", 0, 70), {"b", 70, 60}}) {
    const auto mp4 = folder / (std::string(name) + ".mp4");
    const auto ts = folder / (std::string(name) + ".ts");
    test::film(mp4, {.frames = static_cast<std::size_t>(frames), .first = static_cast<std::size_t>(first)});
    ASSERT_TRUE(test::ffmpeg("-i " + mp4.string() + " -c copy " + ts.string()));
    joined << std::ifstream(ts, std::ios::binary).rdbuf();
  }
  joined.close();
  const auto clip = Clip::open(folder / "joined.ts");
  ASSERT_TRUE(clip) << clip.error().message;
  ASSERT_EQ((*clip)->index().frameCount(), 130U);
  EXPECT_NE((*clip)->info().warnings.back().find("starts again at frame 70"), std::string::npos)
      << (*clip)->info().warnings.back();
  const auto source = Clip::reader(*clip, {});
  for (std::size_t n : {100U, 5U, 69U, 70U, 129U, 40U, 71U}) {
    const auto picture = (*source)->frame(n);
    ASSERT_TRUE(picture) << n;
    EXPECT_EQ(test::numberIn(*picture), n);
  }
}

TEST(Clip, SaysWhereFramesAreMissing) {
  const test::TemporaryFolder folder;
  test::film(folder / "gap.mp4", {.frames = 60, .time_s = [](std::size_t n) {
                                    return static_cast<double>(n) / 50.0 + (n > 30 ? 1.5 : 0.0);
                                  }});
  const auto clip = Clip::open(folder / "gap.mp4");
  ASSERT_TRUE(clip);
  EXPECT_EQ((*clip)->info().warnings.front().rfind("no frames for 1.52 s after frame 30", 0), 0U);
}

TEST(Clip, ShowsStoredPixelsThatAreNotSquareAsAPlayerDoes) {
  const test::TemporaryFolder folder;
  test::film(folder / "square.mp4", {.frames = 10});
  ASSERT_TRUE(test::ffmpeg("-i " + (folder / "square.mp4").string() +
                           " -vf scale=120:96,setsar=4/3 -c:v libx264 " + (folder / "narrow.mp4").string()));
  const auto clip = Clip::open(folder / "narrow.mp4");
  ASSERT_TRUE(clip);
  EXPECT_EQ((*clip)->info().width_px, 160);
  EXPECT_EQ((*clip)->info().height_px, 96);
  const auto picture = (*Clip::reader(*clip, {}))->frame(5);
  ASSERT_TRUE(picture);
  EXPECT_EQ(picture->width(), 160);
  EXPECT_EQ(picture->rgb().cols, 160);
  EXPECT_EQ(test::numberIn(*picture), 5U);
}

TEST(Clip, ReadsAnInterlacedOneFieldByFieldWhenAsked) {
  const test::TemporaryFolder folder;
  test::film(folder / "fields.mkv", {.frames = 60, .bFrames = 0});
  // Two numbered frames go into one interlaced one, line by line.
  ASSERT_TRUE(test::ffmpeg("-i " + (folder / "fields.mkv").string() +
                           " -vf tinterlace=interleave_top,setfield=tff -c:v libx264 -flags +ilme+ildct "
                           "-x264opts tff=1 -crf 10 " +
                           (folder / "interlaced.ts").string()));
  const auto frames = Clip::open(folder / "interlaced.ts");
  ASSERT_TRUE(frames);
  EXPECT_TRUE((*frames)->info().interlaced);
  EXPECT_NE((*frames)->info().warnings.back().find("field by field"), std::string::npos);
  const auto fields = Clip::byField(*frames);
  ASSERT_EQ(fields->index().frameCount(), 2 * (*frames)->index().frameCount());
  EXPECT_NEAR(fields->index().regularRate().value(), 50.0, 0.01);
  const auto source = Clip::reader(fields, {});
  for (std::size_t n : {40U, 7U, 8U, 31U}) {
    const auto picture = (*source)->frame(n);
    ASSERT_TRUE(picture);
    EXPECT_EQ(test::numberIn(*picture), n);
    EXPECT_NEAR(fields->index().timeOf(n).value(), static_cast<double>(n) / 50.0, 1e-4);
  }
}

TEST(Clip, ProposesTheFilmingRateThatTheCameraWrote) {
  const test::TemporaryFolder folder;
  test::film(folder / "plain.mp4", {.frames = 10});
  ASSERT_TRUE(test::ffmpeg("-i " + (folder / "plain.mp4").string() +
                           " -c copy -movflags use_metadata_tags -metadata com.android.capture.fps=240.0 " +
                           (folder / "slow.mp4").string()));
  EXPECT_FALSE((*Clip::open(folder / "plain.mp4"))->info().writtenRate);
  const auto slow = Clip::open(folder / "slow.mp4");
  ASSERT_TRUE(slow);
  ASSERT_TRUE((*slow)->info().writtenRate);
  EXPECT_DOUBLE_EQ((*slow)->info().writtenRate->value(), 240.0);
}

TEST(ClipFingerprint, KnowsAMovedClipAndNoticesAChangedOne) {
  const test::TemporaryFolder folder;
  const auto path = filmed(folder, {"Print", ".mp4"});
  const auto before = fingerprintOf(path);
  std::filesystem::copy_file(path, folder / "moved.mp4");
  EXPECT_EQ(*fingerprintOf(folder / "moved.mp4"), *before);
  std::fstream(path, std::ios::in | std::ios::out | std::ios::binary).seekp(200).put('x');
  EXPECT_NE(*fingerprintOf(path), *before);
}

}  // namespace
}  // namespace fin
