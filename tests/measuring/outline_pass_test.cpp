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

/// A filmed pull whose true track is read.
class ReadPass : public testing::Test {
 protected:
  void SetUp() override {
    ASSERT_TRUE(filmRehearsal(scene_, folder_ / "pull.mp4"));
    auto clip = openClip(request_);
    ASSERT_TRUE(clip);
    clip_ = *clip;
  }
  [[nodiscard]] Track trueTrack() const {
    return tank_.trueTrack(std::array{MarkName::Nose, MarkName::Tail});
  }
  /// How many of its warnings hold these words.
  [[nodiscard]] std::ptrdiff_t warnings(Track track, const std::string& words) const {
    const auto result = readPass(request_, *clip_, std::move(track));
    EXPECT_TRUE(result);
    if (!result) return -1;
    return std::count_if(result->warnings.begin(), result->warnings.end(),
                         [&words](const std::string& w) { return w.find(words) != std::string::npos; });
  }
  [[nodiscard]] ReadingSet readings(Track track) const {
    auto result = readPass(request_, *clip_, std::move(track));
    EXPECT_TRUE(result);
    return result ? std::move(result->readings) : ReadingSet{};
  }

  const test::TemporaryFolder folder_;
  const RehearsalScene scene_ = test::smallPull();
  const RehearsalTank tank_{scene_};
  const PassRequest request_ = requestFor(tank_, folder_ / "pull.mp4");
  std::shared_ptr<const Clip> clip_;
};

TEST_F(ReadPass, SaysWhichMarkIsDoubtfulInMuchOfTheWay) {
  for (const double share : {0.05, 0.3}) {
    Track track = trueTrack();
    auto& tail = track.marks.back().samples;
    const auto last = std::ssize(tail) - 1;
    for (auto n = static_cast<std::ptrdiff_t>((1.0 - share) * static_cast<double>(last)); n <= last; ++n)
      tail[static_cast<std::size_t>(n)] = {true, tail[static_cast<std::size_t>(n)].at, 0.45};
    EXPECT_EQ(warnings(std::move(track), "the tail is doubtful"), share > 0.1 ? 1 : 0);
  }
}

TEST_F(ReadPass, RefusesWhatRestsOnAMarkThatIsHardlyEverSure) {
  for (const std::size_t sureEvery : {4U, 6U}) {
    Track track = trueTrack();
    auto& tail = track.marks.back().samples;
    for (std::size_t i = 0; i < tail.size(); ++i) tail[i].quality = i % sureEvery == 0 ? 1.0 : 0.45;
    const ReadingSet told = readings(std::move(track));
    // What the lure's path tells rests on both ends.
    if (sureEvery == 4) {
      EXPECT_FALSE(told.readings.empty());
      continue;
    }
    EXPECT_TRUE(told.readings.empty());
    EXPECT_TRUE(std::any_of(told.refused.begin(), told.refused.end(), [](const auto& refused) {
      return refused.why.find("the tail is sure in ") != std::string::npos;
    }));
  }
}

TEST_F(ReadPass, AMarkThatWasLostIsCarriedWhereACorrectionIsFollowedAnew) {
  const auto source = Clip::reader(clip_, {});
  ASSERT_TRUE(source);
  Track earlier = *followPass(request_, *clip_, **source);
  const auto tailIn = [&](Track& track, std::size_t frame) -> MarkSample& {
    return track.marks.back().samples[frame - track.firstFrame];
  };
  ASSERT_EQ(earlier.marks.back().name, MarkName::Tail);
  for (std::size_t n = 126; n < 134; ++n) tailIn(earlier, n) = {};
  PassRequest corrected = request_;
  corrected.marks.push_back({MarkName::Nose, 120, tank_.markAt(MarkName::Nose, 120)});
  auto again = followPassAgain(corrected, earlier, request_, *clip_, **source);
  ASSERT_TRUE(again) << again.error().message;
  for (std::size_t n = 126; n < 134; ++n) {
    const MarkSample& tail = tailIn(*again, n);
    ASSERT_TRUE(tail.seen) << n;
    EXPECT_LT(length(tail.at - tank_.markAt(MarkName::Tail, n)).value(), 3.0) << n;
    EXPECT_LT(tail.quality, kDoubtfulBelow) << "nobody saw it there: " << n;
  }
  EXPECT_EQ(tailIn(*again, 100).at, tailIn(earlier, 100).at) << "what holds is left as it was";
}

TEST_F(ReadPass, SaysThatTheCameraSwayed) {
  Track track = trueTrack();
  EXPECT_EQ(warnings(track, "the camera swayed"), 0);
  const ReadingSet still = readings(track);
  // The same pass from a hand: everything in the picture moves by as much as what lies behind.
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const PixelPoint moved{3.0 * std::sin(0.08 * static_cast<double>(i)), 0.0};
    track.background.push_back({true, moved, 1.0});
    for (MarkTrack& mark : track.marks) mark.samples[i].at = mark.samples[i].at + moved;
  }
  EXPECT_EQ(warnings(track, "the camera swayed by up to "), 1);
  const ReadingSet swayed = readings(std::move(track));
  ASSERT_EQ(swayed.readings.size(), still.readings.size());
  for (std::size_t i = 0; i < still.readings.size(); ++i) {
    const auto* const value = std::get_if<double>(&still.readings[i].value);
    if (value == nullptr) continue;
    EXPECT_NEAR(std::get<double>(swayed.readings[i].value), *value, 1e-6 + 1e-6 * std::abs(*value))
        << toString(still.readings[i].id);
  }
}

TEST_F(ReadPass, RefusesWhatRestsOnPlacesWhereTheCameraWasCarriedAlong) {
  Track track = trueTrack();
  for (std::size_t i = 0; i < track.frameCount; ++i)
    track.background.push_back({false, {-0.4 * static_cast<double>(i), 0.0}, 0.0});
  EXPECT_EQ(warnings(track, "the camera moved along by some "), 1);
  EXPECT_EQ(warnings(track, "the camera swayed"), 0);
  const ReadingSet carried = readings(std::move(track));
  const auto has = [&](ReadingId id) {
    return std::any_of(carried.readings.begin(), carried.readings.end(),
                       [id](const Reading& r) { return r.id == id; });
  };
  EXPECT_FALSE(has(ReadingId::TravelSpeed));
  EXPECT_FALSE(has(ReadingId::TailSweep));
  EXPECT_TRUE(has(ReadingId::WobbleFrequency)) << "how it lies does not rest on where it is";
  EXPECT_TRUE(std::any_of(carried.refused.begin(), carried.refused.end(), [](const Refusal& r) {
    return r.id == ReadingId::TravelSpeed && r.why == "the camera moved while it filmed; film from a stand";
  }));
}

TEST_F(ReadPass, AsksWhetherNoseAndTailWereTakenForEachOther) {
  Track swapped = trueTrack();
  EXPECT_EQ(warnings(swapped, "it swims tail first"), 0);
  std::swap(swapped.marks[0].samples, swapped.marks[1].samples);
  EXPECT_EQ(warnings(swapped, "it swims tail first"), 1);
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
