// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_sound.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "support/numbered_film.h"
#include "support/small_scene.h"

namespace fin {
namespace {

/// A clip of 3 s whose sound is `filter` (for the ffmpeg program).
Result<std::shared_ptr<const Clip>> withSound(const test::TemporaryFolder& folder, const std::string& filter,
                                              const std::string& ending, const std::string& coding) {
  test::film(folder / "silent.mkv");
  EXPECT_TRUE(test::ffmpeg("-i " + (folder / "silent.mkv").string() + " -f lavfi -i '" + filter +
                           "' -c:v copy -c:a " + coding + " -shortest " +
                           (folder / ("sound" + ending)).string()));
  return Clip::open(folder / ("sound" + ending));
}

struct Coding {
  std::string name;
  std::string ending;
  std::string coding;
};

class Sound : public testing::TestWithParam<Coding> {};

TEST_P(Sound, StandsOnTheSameTimeAsThePicture) {
  const test::TemporaryFolder folder;
  // A tone of half of full scale from 1.2 s to 1.7 s.
  const auto clip =
      withSound(folder, "aevalsrc=exprs=0.5*sin(2*PI*1000*t)*between(t\\,1.2\\,1.7):s=48000:d=3",
                GetParam().ending, GetParam().coding);
  ASSERT_TRUE(clip) << clip.error().message;
  ASSERT_TRUE((*clip)->info().hasSound);
  const auto level = soundLevel(**clip, Seconds(0.01));
  ASSERT_TRUE(level) << level.error().message;
  ASSERT_GT(level->rms.size(), 290U);
  EXPECT_NEAR(level->rms[145], 0.5 / std::numbers::sqrt2, 0.02);
  EXPECT_NEAR(level->peak[145], 0.5, 0.03);
  const auto loud = [&](double t) { return level->rms[static_cast<std::size_t>(t / 0.01)] > 0.1F; };
  // Lossy codings smear an edge over some milliseconds.
  EXPECT_FALSE(loud(1.175));
  EXPECT_TRUE(loud(1.225));
  EXPECT_TRUE(loud(1.675));
  EXPECT_FALSE(loud(1.735));
}

INSTANTIATE_TEST_SUITE_P(Codings, Sound,
                         testing::Values(Coding{"Aac", ".mp4", "aac"}, Coding{"Pcm", ".mkv", "pcm_s16le"},
                                         Coding{"Opus", ".mkv", "libopus"},
                                         Coding{"LateStart", ".ts", "mp2 -output_ts_offset 5"}),
                         [](const auto& c) { return c.param.name; });

TEST(SoundStretch, IsExactlyTheOneAskedFor) {
  const test::TemporaryFolder folder;
  const auto clip = withSound(folder, "sine=f=440:d=3:r=44100", ".mkv", "pcm_s16le");
  ASSERT_TRUE(clip);
  std::size_t count = 0;
  double first_s = -1.0;
  const auto ok = decodeSound(**clip, {Hertz(8000.0), Seconds(2.0), Seconds(2.5)},
                              [&](std::span<const float> samples, Seconds at) {
                                if (count == 0) first_s = at.value();
                                count += samples.size();
                              });
  ASSERT_TRUE(ok);
  EXPECT_NEAR(first_s, 2.0, 1.0 / 8000.0);
  EXPECT_NEAR(static_cast<double>(count), 4000.0, 1.0);
}

TEST(ClipWriter, WritesSoundOnTheSameTime) {
  const test::TemporaryFolder folder;
  constexpr int kRate_Hz = 48000;
  const auto writer =
      ClipWriter::create(folder / "a.mp4", {.width_px = 160, .height_px = 96, .soundRate_Hz = kRate_Hz});
  ASSERT_TRUE(writer) << writer.error().message;
  for (std::size_t n = 0; n < 60; ++n) {
    ASSERT_TRUE((*writer)->add(test::numbered(n), Seconds(static_cast<double>(n) / 30.0)));
    std::vector<float> samples(kRate_Hz / 30, 0.0F);
    if (n == 30) {
      for (std::size_t i = 0; i < samples.size(); ++i)
        samples[i] = 0.7F * std::sin(0.1F * static_cast<float>(i));
    }
    ASSERT_TRUE((*writer)->addSound(samples));
  }
  ASSERT_TRUE((*writer)->finish());
  const auto clip = Clip::open(folder / "a.mp4");
  ASSERT_TRUE(clip);
  const auto level = soundLevel(**clip, Seconds(0.005));
  ASSERT_TRUE(level);
  const auto loudest = std::max_element(level->rms.begin(), level->rms.end()) - level->rms.begin();
  EXPECT_NEAR(0.005 * static_cast<double>(loudest), 1.015, 0.02);
  EXPECT_LT(level->rms[100], 0.01F);
}

TEST(SoundStretch, SaysSoWhereTheClipHasNone) {
  const test::TemporaryFolder folder;
  test::film(folder / "silent.mp4", {.frames = 10});
  const auto clip = Clip::open(folder / "silent.mp4");
  ASSERT_TRUE(clip);
  const auto level = soundLevel(**clip, Seconds(0.01));
  ASSERT_FALSE(level);
  EXPECT_EQ(level.error().code, ErrorCode::Unreadable);
  EXPECT_NE(level.error().message.find("no sound"), std::string::npos);
}

}  // namespace
}  // namespace fin
