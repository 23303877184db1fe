// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <algorithm>
#include <array>

#include "core/measuring/measure.h"
#include "support/small_scene.h"

namespace fin {
namespace {

TEST(OutlinePass, KeepsWhatTheMarksTellWhereTheOutlineCannotBeFollowed) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "pull.mp4"));
  PassRequest request = requestFor(RehearsalTank(scene), folder / "pull.mp4");
  request.outline = OutlineSeed{request.firstFrame, {{300, 20}, {360, 20}, {360, 60}, {300, 60}}};
  const auto clip = openClip(request);
  ASSERT_TRUE(clip);
  const auto source = Clip::reader(*clip, {});
  auto track = followPass(request, **clip, **source);
  ASSERT_TRUE(track) << track.error().message;
  EXPECT_TRUE(track->outline.empty());
  const auto result = readPass(request, **clip, std::move(*track));
  ASSERT_TRUE(result);
  EXPECT_NE(result->readings.find(ReadingId::WobbleFrequency), nullptr);
  EXPECT_TRUE(std::any_of(result->warnings.begin(), result->warnings.end(),
                          [](const std::string& w) { return w.find("outline") == 0; }));
  EXPECT_FALSE(lureLost(request, *result));

  request.marks.clear();
  auto alone = followPass(request, **clip, **source);
  ASSERT_TRUE(alone);
  EXPECT_TRUE(lureLost(request, *readPass(request, **clip, std::move(*alone))));
}

TEST(ReadPass, SaysWhichMarkIsDoubtfulInMuchOfTheWay) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "pull.mp4"));
  const RehearsalTank tank(scene);
  const PassRequest request = requestFor(tank, folder / "pull.mp4");
  const auto clip = openClip(request);
  ASSERT_TRUE(clip);
  const std::array ends{MarkName::Nose, MarkName::Tail};
  for (const double share : {0.05, 0.3}) {
    Track track = tank.trueTrack(ends);
    auto& tail = track.marks.back().samples;
    const auto last = std::ssize(tail) - 1;
    for (auto n = static_cast<std::ptrdiff_t>((1.0 - share) * static_cast<double>(last)); n <= last; ++n)
      tail[static_cast<std::size_t>(n)] = {true, tail[static_cast<std::size_t>(n)].at, 0.45};
    const auto result = readPass(request, **clip, std::move(track));
    ASSERT_TRUE(result);
    const auto told = std::count_if(
        result->warnings.begin(), result->warnings.end(),
        [](const std::string& w) { return w.find("the tail is doubtful") != std::string::npos; });
    EXPECT_EQ(told, share > 0.1 ? 1 : 0);
  }
}

TEST(ReadPass, AsksWhetherNoseAndTailWereTakenForEachOther) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "pull.mp4"));
  const RehearsalTank tank(scene);
  const PassRequest request = requestFor(tank, folder / "pull.mp4");
  const auto clip = openClip(request);
  ASSERT_TRUE(clip);
  const std::array ends{MarkName::Nose, MarkName::Tail};
  const auto asks = [&](Track track) {
    const auto result = readPass(request, **clip, std::move(track));
    return result && std::any_of(result->warnings.begin(), result->warnings.end(),
                                 [](const std::string& w) { return w.find("it swims tail first") == 0; });
  };
  Track swapped = tank.trueTrack(ends);
  EXPECT_FALSE(asks(swapped));
  std::swap(swapped.marks[0].samples, swapped.marks[1].samples);
  EXPECT_TRUE(asks(swapped));
}

TEST(OutlinePass, SaysWhereAnOutlineCannotBeMeant) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "pull.mp4"));
  PassRequest request = requestFor(RehearsalTank(scene), folder / "pull.mp4");
  request.outline = OutlineSeed{request.firstFrame, {{4000, 20}, {4060, 20}, {4060, 60}}};
  const auto clip = openClip(request);
  const auto source = Clip::reader(*clip, {});
  const auto track = followPass(request, **clip, **source);
  ASSERT_FALSE(track);
  EXPECT_EQ(track.error().code, ErrorCode::BadRequest);
}

}  // namespace
}  // namespace fin
