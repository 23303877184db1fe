// SPDX-License-Identifier: GPL-3.0-or-later
// Clips that no camera should write, and some do.
#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>
#include <random>
#include <sstream>

#include "core/footage/clip.h"
#include "core/footage/index_store.h"
#include "core/units/whole_file.h"
#include "support/numbered_film.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

TEST(OddClip, OfPicturesThatChangeTheirSizeMidwayIsOneClipOnlyAsFarAsTheyDoNot) {
  const test::TemporaryFolder folder;
  const auto name = [&](const char* file) { return (folder / file).string(); };
  ASSERT_TRUE(test::ffmpeg("-f lavfi -i testsrc=size=160x96:rate=25:duration=1 -c:v mpeg2video -f mpegts " +
                           name("a.ts")));
  ASSERT_TRUE(test::ffmpeg("-f lavfi -i testsrc=size=320x192:rate=25:duration=1 -c:v mpeg2video -f mpegts " +
                           name("b.ts")));
  {
    std::ofstream both(folder / "both.ts", std::ios::binary);
    for (const char* part : {"a.ts", "b.ts"}) both << std::ifstream(folder / part, std::ios::binary).rdbuf();
  }
  const auto clip = Clip::open(folder / "both.ts");
  ASSERT_TRUE(clip) << clip.error().message;
  const auto frames = Clip::reader(*clip, {});
  ASSERT_TRUE(frames);
  std::size_t whole = 0;
  for (std::size_t n = 0; n < (*frames)->frameCount(); ++n) {
    const auto picture = (*frames)->frame(n);
    if (!picture) continue;
    ++whole;
    EXPECT_EQ(picture->width(), (*clip)->info().width_px) << "frame " << n;
    EXPECT_EQ(picture->height(), (*clip)->info().height_px) << "frame " << n;
  }
  EXPECT_GE(whole, 20U) << "the first part is there";
  EXPECT_LT(whole, (*frames)->frameCount()) << "the other is not taken for it";
}

TEST(OddClip, WithAnAbsurdPixelShapeHasSquareOnesAndSaysSo) {
  const test::TemporaryFolder folder;
  const std::string file = (folder / "a.mkv").string();
  ASSERT_TRUE(test::ffmpeg(
      "-f lavfi -i testsrc=size=160x96:rate=25:duration=1 -vf setsar=2000/1 -c:v mpeg4 " + file));
  const auto clip = Clip::open(file);
  ASSERT_TRUE(clip) << clip.error().message;
  EXPECT_EQ((*clip)->info().width_px, 160);
  ASSERT_FALSE((*clip)->info().warnings.empty());
  EXPECT_NE((*clip)->info().warnings.front().find("cannot be"), std::string::npos);
}

TEST(OddClip, CodedSoStronglyThatSmallDetailsAreGoneSaysSoBeforeAnythingIsFollowed) {
  const test::TemporaryFolder folder;
  for (const int strength : {1, 51}) {
    const std::string file = (folder / "a.mp4").string();
    ASSERT_TRUE(
        test::ffmpeg("-y -f lavfi -i testsrc=size=1280x720:rate=50:duration=2 -c:v libx264 -preset "
                     "fast -crf " +
                     std::to_string(strength) + " " + file));
    const auto clip = Clip::open(file);
    ASSERT_TRUE(clip) << clip.error().message;
    const auto& warnings = (*clip)->info().warnings;
    EXPECT_EQ(std::any_of(warnings.begin(), warnings.end(),
                          [](const std::string& w) { return w.find("coded so strongly") == 0; }),
              strength > 50)
        << strength;
  }
}

TEST(OddIndex, NeverAsksForMoreThanItHolds) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mp4", {.frames = 60});
  std::ostringstream out;
  (*Clip::open(folder / "a.mp4"))->index().writeTo(out);
  const std::string whole = out.str();
  {
    // A count of 2^28 where there are sixty.
    std::string large = whole;
    large[16 + 3] = 0x10;
    std::istringstream in(large);
    EXPECT_FALSE(ClipIndex::readFrom(in));
  }
  std::mt19937 draw(1);
  for (int round = 0; round < 500; ++round) {
    std::string spoilt = whole;
    for (int i = 0; i < 4; ++i) spoilt[draw() % spoilt.size()] = static_cast<char>(draw());
    if (round % 5 == 0) spoilt.resize(draw() % spoilt.size());
    std::istringstream in(spoilt);
    const auto index = ClipIndex::readFrom(in);
    EXPECT_TRUE(!index || index->frameCount() <= whole.size());
  }
}

TEST(OddIndex, IsMadeAnewInPlaceOfOneThatCannotBeRead) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mp4", {.frames = 60});
  const auto kept = folder / "kept";
  ASSERT_TRUE(Clip::open(folder / "a.mp4", {.indexFolder = kept}));
  const auto fingerprint = *fingerprintOf(folder / "a.mp4");
  ASSERT_TRUE(writeWhole(kept / (fingerprint.sha256 + ".index"), "not an index"));
  const auto again = Clip::open(folder / "a.mp4", {.indexFolder = kept});
  ASSERT_TRUE(again);
  EXPECT_EQ((*again)->index().frameCount(), 60U);
  EXPECT_TRUE(keptIndex(kept, fingerprint)) << "the good one lies there now";
}

TEST(WholeFile, IsThereWholeOrNotAtAll) {
  const test::TemporaryFolder folder;
  ASSERT_TRUE(writeWhole(folder / "a.txt", "first"));
  ASSERT_TRUE(writeWhole(folder / "a.txt", "second"));
  std::ifstream in(folder / "a.txt");
  EXPECT_EQ(std::string(std::istreambuf_iterator<char>(in), {}), "second");
  EXPECT_EQ(writeWhole("/dev/full", "x").error().code, ErrorCode::NotWritable);
  EXPECT_FALSE(writeWhole(folder / "no such folder/a.txt", "x"));
  fs::create_directory(folder / "b.txt");
  const auto refused = writeWhole(folder / "b.txt", "x");
  ASSERT_FALSE(refused);
  EXPECT_NE(refused.error().message.find("b.txt"), std::string::npos);
  for (const auto& entry : fs::directory_iterator(folder.path()))
    EXPECT_NE(entry.path().extension(), ".part") << entry.path();
}

}  // namespace
}  // namespace fin
