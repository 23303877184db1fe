// SPDX-License-Identifier: GPL-3.0-or-later
// Every long piece of work stops where it is told to, whatever it is at. Following has tests of its own
// (session_test.cpp).
#include <gtest/gtest.h>

#include <chrono>
#include <cstdio>
#include <functional>

#include "core/calibration/lens_board.h"
#include "core/footage/clip_sound.h"
#include "core/footage/clip_writer.h"
#include "core/rehearsal/board_film.h"
#include "core/tracking/marks/crossings.h"
#include "support/small_scene.h"

namespace fin {
namespace {

using Work = std::function<Result<void>(const JobControl&)>;

template <class T>
Result<void> without(Result<T> outcome) {
  if (!outcome) return tl::unexpected(outcome.error());
  return {};
}

/// A clip of half a minute with sound, small enough to be written at once.
std::filesystem::path longClip(const test::TemporaryFolder& folder) {
  constexpr int kSound_Hz = 16000;
  const auto file = folder / "long.mp4";
  auto writer = ClipWriter::create(file, {.width_px = 64, .height_px = 48, .soundRate_Hz = kSound_Hz});
  EXPECT_TRUE(writer);
  const std::vector<float> hiss(kSound_Hz / 60, 0.1F);
  const cv::Mat grey(48, 64, CV_8UC3, cv::Scalar(90, 90, 90));
  for (int n = 0; n < 1800; ++n) {
    EXPECT_TRUE((*writer)->add(grey, Seconds(n / 60.0)));
    EXPECT_TRUE((*writer)->addSound(hiss));
  }
  EXPECT_TRUE((*writer)->finish());
  return file;
}

/// Stops the work at one of its reports; how many came after, which should be none.
void expectStops(const char* what, const Work& work) {
  using Clock = std::chrono::steady_clock;
  int reports = 0;
  ASSERT_TRUE(work({{}, [&](double) { ++reports; }})) << what;
  ASSERT_GT(reports, 8) << what << " says too seldom how far it is";
  for (const int at : {1, reports / 3, reports - 2}) {
    std::stop_source stop;
    int seen = 0;
    Clock::time_point told;
    const auto outcome = work({stop.get_token(), [&](double) {
                                 if (++seen != at) return;
                                 told = Clock::now();
                                 stop.request_stop();
                               }});
    const std::chrono::duration<double, std::milli> after = Clock::now() - told;
    std::printf("[stopping] %s at report %d of %d: %.1f ms\n", what, at, reports, after.count());
    ASSERT_FALSE(outcome) << what << " at " << at << " of " << reports;
    EXPECT_EQ(outcome.error().code, ErrorCode::Cancelled) << what;
    EXPECT_EQ(seen, at) << what << " went on";
  }
}

TEST(Stopping, LookingThroughAClipAndHearingIt) {
  const test::TemporaryFolder folder;
  const auto file = longClip(folder);
  expectStops("looking through", [&](const JobControl& job) {
    Clip::OpenOptions options;
    options.job = job;
    return without(Clip::open(file, options));
  });
  const auto clip = Clip::open(file);
  ASSERT_TRUE(clip);
  expectStops("hearing",
              [&](const JobControl& job) { return without(soundLevel(**clip, Seconds(0.01), job)); });
}

TEST(Stopping, FindingTheLens) {
  BoardScene scene;
  scene.width_px = 640;
  scene.height_px = 360;
  scene.lens = {470.0, 470.0, 322.0, 177.0, {-0.22, 0.06, 0.0, 0.0, 0.0}};
  scene.frames = 16;
  BoardFilm film(scene);
  expectStops("the lens",
              [&](const JobControl& job) { return without(lensFromClip(film, scene.board, job)); });
}

TEST(Stopping, LookingForFurtherCrossings) {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(3.0);
  RehearsalTank tank(scene);
  const PassRequest said = requestFor(tank, {});
  const FollowRequest request{said.marks, said.firstFrame, tank.frameCount() - 1, {}};
  const auto track = followMarks(tank, request);
  ASSERT_TRUE(track);
  expectStops("further crossings",
              [&](const JobControl& job) { return without(findCrossings(tank, request, *track, job)); });
}

TEST(Stopping, FilmingTheRehearsal) {
  const test::TemporaryFolder folder;
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(0.3);
  const auto file = folder / "a.mp4";
  expectStops("filming", [&](const JobControl& job) { return without(filmRehearsal(scene, file, {}, job)); });
  EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 1)
      << "nothing half made is left behind";
}

}  // namespace
}  // namespace fin
