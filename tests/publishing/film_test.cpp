// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>
#include <sys/resource.h>

#include <algorithm>
#include <cmath>
#include <csignal>
#include <fstream>
#include <opencv2/core.hpp>

#include "core/footage/clip_sound.h"
#include "core/publishing/film_plan.h"
#include "core/publishing/make_film.h"
#include "support/numbered_film.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

std::vector<double> evenTimes(double rate_Hz, std::size_t frames) {
  std::vector<double> out;
  for (std::size_t n = 0; n < frames; ++n) out.push_back(static_cast<double>(n) / rate_Hz);
  return out;
}

FilmScript bareFilm(const std::vector<fs::path>& clips) {
  FilmScript out{.slowness = 2.0,
                 .rate_Hz = 25.0,
                 .width_px = 160,
                 .height_px = 96,
                 .view = FilmView::Whole,
                 .bare = true};
  for (const fs::path& clip : clips) out.passes.push_back({.clip = clip, .caption = clip.stem().string()});
  return out;
}

TEST(FilmPlan, HasSevenHundredAndTwentyPicturesOfTwoPointFourSecondsAtATenth) {
  FilmScript script{.slowness = 10.0, .rate_Hz = 30.0};
  script.passes.resize(2);
  const std::vector<std::vector<double>> times{evenTimes(240.0, 576), evenTimes(50.0, 120)};
  const auto plan = planFilm(script, times);
  ASSERT_TRUE(plan) << plan.error().message;
  EXPECT_EQ(plan->pictures, 720U);
  // 300 pictures to a true second: of 240 frames four in five are new, of 50 one in six.
  EXPECT_NEAR(static_cast<double>(plan->passes[0].repeated), 720.0 * 60.0 / 300.0, 1.0);
  EXPECT_NEAR(static_cast<double>(plan->passes[1].repeated), 720.0 * 250.0 / 300.0, 1.0);
  EXPECT_EQ(plan->passes[0].skipped, 0U);
}

TEST(FilmPlan, ShowsTheFrameThatIsNearestInTrueTimeWhereTimesAreUneven) {
  FilmScript script{.slowness = 1.0, .rate_Hz = 10.0};
  script.passes.resize(1);
  const std::vector<std::vector<double>> times{{0.0, 0.04, 0.07, 0.19, 0.34, 0.36, 0.5}};
  const auto plan = planFilm(script, times);
  ASSERT_TRUE(plan);
  // At 0, 0.1, 0.2 … 0.6 s (the last frame stands as long as the one before it did).
  EXPECT_EQ(plan->passes[0].frames, (std::vector<std::size_t>{0, 2, 3, 4, 5, 6}));
  EXPECT_EQ(plan->passes[0].skipped, 1U);
}

TEST(FilmPlan, LaysTheInstantsOnEachOtherAndHoldsWhatHasNotBegunOrIsOver) {
  FilmScript script{.slowness = 1.0, .rate_Hz = 10.0};
  script.passes.resize(2);
  script.passes[0].instant_s = 0.5;
  script.passes[1].instant_s = 0.2;
  const std::vector<std::vector<double>> times{evenTimes(10.0, 10), evenTimes(10.0, 5)};
  const auto plan = planFilm(script, times);
  ASSERT_TRUE(plan);
  EXPECT_NEAR(plan->begins_s, -0.5, 1e-12);
  ASSERT_EQ(plan->pictures, 10U);
  EXPECT_EQ(plan->passes[0].frames, (std::vector<std::size_t>{0, 1, 2, 3, 4, 5, 6, 7, 8, 9}));
  EXPECT_EQ(plan->passes[1].frames, (std::vector<std::size_t>{0, 0, 0, 0, 1, 2, 3, 4, 4, 4}));
  EXPECT_EQ(plan->passes[1].held, 5U);
  EXPECT_EQ(framesInWords(plan->passes[1], 10.0), "filmed at 10 a second");
}

TEST(FilmPlan, RefusesAPartWithoutFramesAndAFilmOfHours) {
  FilmScript script{.slowness = 1000.0, .rate_Hz = 10.0};
  script.passes.resize(1);
  const std::vector<std::vector<double>> times{evenTimes(10.0, 100)};
  EXPECT_EQ(planFilm(script, times).error().where, "slowness");
  script.slowness = 1.0;
  script.passes[0].from_s = 20.0;
  EXPECT_EQ(planFilm(script, times).error().where, "passes");
}

class FilmEndings : public testing::TestWithParam<std::string> {};

TEST_P(FilmEndings, ShowTrueFramesOnly) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mkv", {.frames = 40, .first = 7});
  const FilmScript script = bareFilm({folder / "a.mkv"});
  const fs::path file = folder / ("film" + GetParam());
  const auto made = makeFilm(script, file);
  ASSERT_TRUE(made) << made.error().message;
  EXPECT_EQ(made->pictures, 40U);  // 0.8 s at half the speed and 25 a second
  const auto film = Clip::open(file);
  ASSERT_TRUE(film) << film.error().message;
  EXPECT_EQ((*film)->info().codec, GetParam() == ".mp4" ? "h264" : "vp9");
  ASSERT_EQ((*film)->index().frameCount(), 40U);
  EXPECT_NEAR((*film)->index().regularRate().value(), 25.0, 0.01);
  const auto reader = Clip::reader(*film, {});
  for (std::size_t k = 0; k < 40; ++k) {
    const auto picture = (*reader)->frame(k);
    ASSERT_TRUE(picture);
    EXPECT_EQ(test::numberIn(*picture), 7 + k) << k;
  }
  EXPECT_EQ(std::distance(fs::directory_iterator(folder.path()), {}), 2);
}

INSTANTIATE_TEST_SUITE_P(Publishing, FilmEndings, testing::Values(".mp4", ".webm"),
                         [](const auto& p) { return p.param.substr(1); });

TEST(Film, HasItsCardsItsCaptionsAndItsCounter) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mkv", {.frames = 50});
  test::film(folder / "b.mkv", {.frames = 30});
  FilmScript script = bareFilm({folder / "a.mkv", folder / "b.mkv"});
  script.bare = false;
  script.width_px = 640;
  script.height_px = 360;
  script.title = "<b>Which?</b>";
  script.end = {"One tank is not a lake."};
  script.passes[0].trace = FilmTrace{"Angle, °", {0.0, 0.5, 1.0}, {0.0, 30.0, -10.0}};
  const auto made = makeFilm(script, folder / "film.mp4");
  ASSERT_TRUE(made) << made.error().message;
  EXPECT_EQ(made->titlePictures, 75U);
  EXPECT_EQ(made->endPictures, 150U);
  EXPECT_EQ(made->pictures, 50U);
  EXPECT_NEAR(made->length_s, 11.0, 1e-9);
  const auto film = Clip::open(folder / "film.mp4");
  const auto reader = Clip::reader(*film, {});
  const auto inkIn = [&](std::size_t picture, const cv::Rect& box) {
    return cv::countNonZero((*reader)->frame(picture)->grey()(box) < 110);
  };
  EXPECT_GT(inkIn(10, {64, 100, 400, 60}), 100);  // the title, letter by letter
  EXPECT_GT(inkIn(80, {430, 0, 200, 20}), 40);    // the counter
  EXPECT_GT(inkIn(80, {8, 255, 100, 30}), 20);    // the caption under the first picture
  EXPECT_NE(inkIn(80, {440, 0, 190, 20}), inkIn(110, {440, 0, 190, 20}));  // and it counts
  EXPECT_GT(inkIn(150, {50, 30, 300, 100}), 100);                          // the end card
}

TEST(Film, OfClipsOfOtherSizeRateAndTurnIsMade) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mkv", {.frames = 50});
  ASSERT_TRUE(test::ffmpeg("-f lavfi -i testsrc=s=90x200:r=24:d=1 -pix_fmt yuv420p " +
                           (folder / "tall.mp4").string()));
  ASSERT_TRUE(test::ffmpeg("-i " + (folder / "tall.mp4").string() + " -c copy -metadata:s:v rotate=90 " +
                           (folder / "turned.mp4").string()));
  FilmScript script = bareFilm({folder / "a.mkv", folder / "tall.mp4", folder / "turned.mp4"});
  script.view = FilmView::Near;
  script.passes[1].lure = {{0, {5.0, 5.0}}, {20, {85.0, 195.0}}};
  script.passes[1].length_px = 20.0;
  script.passes[2].lure = {{3, {400.0, -50.0}}};  // out of the picture
  script.passes[2].length_px = 1.0;
  const auto made = makeFilm(script, folder / "film.mp4");
  ASSERT_TRUE(made) << made.error().message;
  EXPECT_EQ(made->pictures, 50U);
}

TEST(Film, AtOneSizeShowsAMillimetreAsLongInEveryPicture) {
  const test::TemporaryFolder folder;
  // A white bar of 40 px, once at 1 mm/px, once at 0.5 mm/px: it is 40 and 20 mm long.
  ASSERT_TRUE(test::ffmpeg(
      "-f lavfi -i color=black:s=200x200:r=25:d=0.4,drawbox=80:90:40:20:white:fill -pix_fmt yuv420p -crf 4 " +
      (folder / "bar.mp4").string()));
  FilmScript script = bareFilm({folder / "bar.mp4", folder / "bar.mp4"});
  script.width_px = 400;
  script.height_px = 200;
  script.view = FilmView::OneSize;
  for (FilmPass& pass : script.passes) {
    pass.lure = {{0, {100.0, 100.0}}};
    pass.length_px = 40.0;
  }
  script.passes[0].mmPerPixel = 1.0;
  script.passes[1].mmPerPixel = 0.5;
  ASSERT_TRUE(makeFilm(script, folder / "film.mp4"));
  const auto film = Clip::open(folder / "film.mp4");
  const auto picture = (*Clip::reader(*film, {}))->frame(3);
  const auto bar = [&](int from) {
    return cv::countNonZero(picture->grey()(cv::Rect(from, 100, 200, 1)) > 128);
  };
  EXPECT_NEAR(bar(0), 84, 2);  // 0.42 of 200
  EXPECT_NEAR(bar(200), 42, 2);
}

TEST(Film, OfAClipThatIsGoneSaysWhichAndLeavesNothing) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mkv", {.frames = 20});
  const auto made = makeFilm(bareFilm({folder / "a.mkv", folder / "gone.mkv"}), folder / "film.mp4");
  ASSERT_FALSE(made);
  EXPECT_EQ(made.error().code, ErrorCode::Unreadable);
  EXPECT_NE(made.error().message.find("gone.mkv"), std::string::npos);
  EXPECT_EQ(std::distance(fs::directory_iterator(folder.path()), {}), 1);
}

TEST(Film, ThatIsStoppedLeavesNothingAndWhatStoodThereBefore) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mkv", {.frames = 60});
  test::write(folder / "film.mp4", "yesterday's");
  std::stop_source stop;
  double last = 0.0;
  const auto made =
      makeFilm(bareFilm({folder / "a.mkv"}), folder / "film.mp4", {stop.get_token(), [&](double share) {
                                                                     last = share;
                                                                     if (share > 0.3) stop.request_stop();
                                                                   }});
  ASSERT_FALSE(made);
  EXPECT_EQ(made.error().code, ErrorCode::Cancelled);
  EXPECT_LT(last, 0.4);
  EXPECT_EQ(fs::file_size(folder / "film.mp4"), 11U);
  EXPECT_EQ(std::distance(fs::directory_iterator(folder.path()), {}), 2);
}

/// While one lives, no file grows beyond a size: what is written then fails, as on a full disk.
class LittleRoom {
 public:
  explicit LittleRoom(rlim_t bytes) {
    ::getrlimit(RLIMIT_FSIZE, &before_);
    const rlimit little{bytes, before_.rlim_max};
    ::setrlimit(RLIMIT_FSIZE, &little);
    handler_ = std::signal(SIGXFSZ, SIG_IGN);
  }
  ~LittleRoom() {
    ::setrlimit(RLIMIT_FSIZE, &before_);
    std::signal(SIGXFSZ, handler_);
  }
  LittleRoom(const LittleRoom&) = delete;
  LittleRoom& operator=(const LittleRoom&) = delete;

 private:
  rlimit before_{};
  void (*handler_)(int) = nullptr;
};

TEST(Film, OnADiskThatFillsIsAnErrorAndNoHalfFile) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mkv", {.frames = 150});
  for (const rlim_t bytes : {1000, 6000}) {
    const LittleRoom little(bytes);
    const auto made = makeFilm(bareFilm({folder / "a.mkv"}), folder / "film.mp4");
    ASSERT_FALSE(made) << bytes;
    EXPECT_EQ(made.error().code, ErrorCode::NotWritable);
    EXPECT_EQ(std::distance(fs::directory_iterator(folder.path()), {}), 1);
  }
}

/// A clip of 2 s at 50 a second: `hiss` in still water until 0.5 s, then a tone four times as loud.
void filmWithSound(const fs::path& file, const test::TemporaryFolder& folder, double hiss) {
  test::film(folder / "silent.mkv", {.frames = 100});
  const std::string noise = std::to_string(hiss) + "*sin(2*PI*700*t)";
  ASSERT_TRUE(
      test::ffmpeg("-i " + (folder / "silent.mkv").string() + " -f lavfi -i 'aevalsrc=exprs=" + noise +
                   "*(1+3*gt(t\\,0.5)):s=48000:d=2' -c:v copy -c:a pcm_s16le -shortest " + file.string()));
}

struct Loud {
  FilmSound sound;
  std::string ending;
  double ratio;  ///< of the second clip's still water to the first's
};
class FilmSounds : public testing::TestWithParam<Loud> {};

TEST_P(FilmSounds, AreHeardOneAfterTheOtherAsWasSaid) {
  const test::TemporaryFolder folder;
  filmWithSound(folder / "soft.mkv", folder, 0.02);
  filmWithSound(folder / "loud.mkv", folder, 0.08);
  test::film(folder / "mute.mkv", {.frames = 100});
  FilmScript script = bareFilm({folder / "soft.mkv", folder / "mute.mkv", folder / "loud.mkv"});
  script.slowness = 1.0;
  script.sound = GetParam().sound;
  for (FilmPass& pass : script.passes) {
    pass.quietFrom_s = 0.05;
    pass.quietTo_s = 0.45;
  }
  const auto made = makeFilm(script, folder / ("film" + GetParam().ending));
  ASSERT_TRUE(made) << made.error().message;
  EXPECT_EQ(made->pictures, 100U);  // twice 2 s at 25 a second: the mute one has no turn
  EXPECT_NE(made->notes.back().find("mute (no sound in its clip)"), std::string::npos) << made->notes.back();
  const auto film = Clip::open(folder / ("film" + GetParam().ending));
  ASSERT_TRUE((*film)->info().hasSound);
  const auto level = soundLevel(**film, Seconds(0.05));
  ASSERT_TRUE(level);
  const auto meanOver = [&](double from_s, double to_s) {
    double sum = 0.0;
    int n = 0;
    for (auto k = static_cast<std::size_t>(from_s / 0.05); k < static_cast<std::size_t>(to_s / 0.05);
         ++k, ++n)
      sum += level->rms[k];
    return sum / n;
  };
  EXPECT_NEAR(meanOver(2.1, 2.4) / meanOver(0.1, 0.4), GetParam().ratio, 0.08 * GetParam().ratio);
  EXPECT_NEAR(meanOver(0.7, 1.8) / meanOver(0.1, 0.4), 4.0, 0.4);
}

INSTANTIATE_TEST_SUITE_P(Publishing, FilmSounds,
                         testing::Values(Loud{FilmSound::Recorded, ".mp4", 4.0},
                                         Loud{FilmSound::Matched, ".mp4", 1.0},
                                         Loud{FilmSound::Matched, ".webm", 1.0}),
                         [](const auto& p) {
                           return std::string(toString(p.param.sound)) + p.param.ending.substr(1);
                         });

TEST(FilmScript, SaysWhichKeyIsWrong) {
  const FilmScript fine = bareFilm({"a.mp4", "b.mp4"});
  ASSERT_TRUE(validate(fine));
  const auto wrongKey = [&](const std::function<void(FilmScript&)>& change) {
    FilmScript script = fine;
    change(script);
    const auto ok = validate(script);
    return ok ? std::string() : ok.error().where;
  };
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.passes.clear(); }), "passes");
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.passes.resize(7, s.passes[0]); }), "passes");
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.slowness = 0.5; }), "slowness");
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.width_px = 1921; }), "width");
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.sound = FilmSound::Recorded; }), "sound");
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.view = FilmView::OneSize; }), "passes[0].mm_per_px");
  EXPECT_EQ(wrongKey([](FilmScript& s) {
              s.slowness = 1.0;
              s.sound = FilmSound::Matched;
            }),
            "passes[0].quiet");
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.passes[1].lure = {{4, {}}, {4, {}}}; }), "passes[1].lure");
  EXPECT_EQ(wrongKey([](FilmScript& s) {
              s.passes[1].trace = FilmTrace{"x", {0.0, 1.0}, {0.0}};
            }),
            "passes[1].trace");
  EXPECT_EQ(wrongKey([](FilmScript& s) { s.passes[1].clip.clear(); }), "passes[1].clip");
}

}  // namespace
}  // namespace fin
