// SPDX-License-Identifier: GPL-3.0-or-later
// One clip in which the lure does several things: each is read by its own protocol, from one following.
#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <set>

#include "core/comparison/speed_ladder.h"
#include "core/measuring/measure.h"
#include "core/measuring/session.h"
#include "core/rehearsal/rehearse.h"
#include "support/numbered_film.h"
#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

/// Seven seconds at 50 frames a second: two twitches, a pull, a wait, a fall. The path alone counts here; the
/// film only says when each frame was.
class SeveralThings : public testing::Test {
 protected:
  void SetUp() override {
    test::film(folder_ / "several.mp4", {.frames = 350});
    clip_ = *Clip::open(folder_ / "several.mp4");
    request_.clip = folder_ / "several.mp4";
    request_.pull = Pull::Right;
    request_.scale = ScaleMark{{0.0, 90.0}, {100.0, 90.0}, Millimetres(100.0), Millimetres(0.5)};
    request_.marks = {{MarkName::Nose, 0, {80.0, 20.0}}, {MarkName::Tail, 0, {0.0, 20.0}}};
    track_ = test::severalThings();
  }
  static const Reading* of(const PassResult& result, ReadingId id, std::size_t stretch) {
    for (const Reading& r : result.readings.readings) {
      if (r.id == id && r.stretch == stretch) return &r;
    }
    return nullptr;
  }
  test::TemporaryFolder folder_;
  std::shared_ptr<const Clip> clip_;
  PassRequest request_;
  Track track_;
};

TEST_F(SeveralThings, AreFoundAndReadEachByItsProtocol) {
  request_.findStretches = true;
  const auto read = readPass(request_, *clip_, track_);
  ASSERT_TRUE(read) << read.error().message;
  ASSERT_EQ(read->stretches.size(), 4U);
  EXPECT_EQ(read->stretches[2].protocol, Protocol::Pause);
  ASSERT_NE(of(*read, ReadingId::TwitchCount, 0), nullptr);
  EXPECT_EQ(std::get<double>(of(*read, ReadingId::TwitchCount, 0)->value), 2.0);
  ASSERT_NE(of(*read, ReadingId::TravelSpeed, 1), nullptr);
  EXPECT_NEAR(std::get<double>(of(*read, ReadingId::TravelSpeed, 1)->value), 250.0, 8.0);
  ASSERT_NE(of(*read, ReadingId::FallRate, 3), nullptr);
  EXPECT_NEAR(std::get<double>(of(*read, ReadingId::FallRate, 3)->value), 180.0, 4.0);
  EXPECT_EQ(of(*read, ReadingId::FallRate, 1), nullptr);
}

TEST_F(SeveralThings, AreCutWhereAPersonSays) {
  request_.stretches = {{Protocol::Retrieve, {110, 190}}};
  const auto read = readPass(request_, *clip_, track_);
  ASSERT_TRUE(read);
  ASSERT_EQ(read->stretches.size(), 1U);
  const Reading* speed = of(*read, ReadingId::TravelSpeed, 0);
  ASSERT_NE(speed, nullptr);
  EXPECT_NEAR(std::get<double>(speed->value), 250.0, 1.0) << "its run-up and its end are cut away";
}

TEST_F(SeveralThings, OutsideOfTheWindowAreLeftOut) {
  request_.stretches = {{Protocol::Twitch, {0, 40}}, {Protocol::Retrieve, {110, 5000}}};
  request_.firstFrame = 100;
  Track later = track_;
  later.firstFrame = 100;
  later.frameCount = 100;
  for (MarkTrack& mark : later.marks) mark.samples = {mark.samples.begin() + 100, mark.samples.begin() + 200};
  const auto read = readPass(request_, *clip_, later);
  ASSERT_TRUE(read);
  EXPECT_EQ(of(*read, ReadingId::TwitchCount, 0), nullptr);
  EXPECT_NEAR(std::get<double>(of(*read, ReadingId::TravelSpeed, 1)->value), 250.0, 1.0);
}

TEST_F(SeveralThings, BecomePassesOfTheirOwnReadFromOneFollowing) {
  const auto parts = measureStretches(request_, track_, clip_);
  ASSERT_TRUE(parts) << parts.error().message;
  ASSERT_EQ(parts->size(), 3U) << "a wait is no pass";
  const auto& [pull, measured] = (*parts)[1];
  EXPECT_EQ(pull.protocol, Protocol::Retrieve);
  EXPECT_NEAR(static_cast<double>(pull.firstFrame), 100.0, 6.0);
  ASSERT_EQ(pull.marks.size(), 2U);
  EXPECT_EQ(pull.marks[0].frame, pull.firstFrame);
  EXPECT_EQ(pull.marks[0].at.x_px, track_.marks[0].samples[pull.firstFrame].at.x_px);
  // The clip shows no lure: only the track that is there can have told this.
  EXPECT_NEAR(*numberIn(measured->readings, ReadingId::TravelSpeed), 250.0, 8.0);
  EXPECT_EQ(stateOf(measured.get(), pull, clip_->info().fingerprint), MeasurementState::Current);
  for (std::size_t n = 0; n < track_.frameCount; ++n) {
    for (MarkTrack& mark : track_.marks) mark.samples[n].at = {5.0 * static_cast<double>(n), 20.0};
  }
  EXPECT_TRUE(measureStretches(request_, track_, clip_)->empty()) << "one thing all along";
}

TEST_F(SeveralThings, OwnLengthGivesSizesAndDisagreesAloud) {
  // In the middle of the picture, where it is seen straight.
  for (MarkSample& s : track_.marks[0].samples) s.at = {120.0, 48.0};
  for (MarkSample& s : track_.marks[1].samples) s.at = {40.0, 48.0};
  request_.scale.reset();
  request_.ownLength = OwnLength{Millimetres(40.0), Millimetres(0.2)};
  const auto alone = readPass(request_, *clip_, track_);
  ASSERT_TRUE(alone);
  ASSERT_NE(alone->readings.find(ReadingId::OwnScale), nullptr);
  EXPECT_NEAR(std::get<double>(alone->readings.find(ReadingId::OwnScale)->value), 2.0, 0.02);
  request_.scale = ScaleMark{{0.0, 90.0}, {100.0, 90.0}, Millimetres(100.0), Millimetres(0.5)};
  const auto both = readPass(request_, *clip_, track_);
  ASSERT_TRUE(both);
  EXPECT_TRUE(std::any_of(both->warnings.begin(), both->warnings.end(), [](const std::string& w) {
    return w.find("disagree by 50") != std::string::npos;
  }));
}

TEST_F(SeveralThings, TwitchesOfAChasingCameraNeedWhatLiesBehind) {
  request_.protocol = Protocol::Twitch;
  request_.view = View::Chase;
  const auto alone = readPass(request_, *clip_, track_);
  ASSERT_TRUE(alone);
  EXPECT_EQ(alone->readings.find(ReadingId::Advance), nullptr);
  ASSERT_FALSE(alone->readings.refused.empty());
  EXPECT_NE(alone->readings.refused.front().why.find("background"), std::string::npos);
  // The camera swims along with half of what the lure goes: the background slides back by as much.
  request_.followBackground = true;
  Track chased = track_;
  for (std::size_t n = 0; n < chased.frameCount; ++n) {
    const double moved = 0.5 * chased.marks[1].samples[n].at.x_px;
    for (MarkTrack& mark : chased.marks) mark.samples[n].at.x_px -= moved;
    chased.background.push_back({true, {-moved, 0.0}, 1.0});
  }
  const auto against = readPass(request_, *clip_, chased);
  const auto still = [&] {
    PassRequest side = request_;
    side.view = View::Side;
    side.followBackground = false;
    return readPass(side, *clip_, track_);
  }();
  ASSERT_TRUE(against && still);
  ASSERT_NE(against->readings.find(ReadingId::Advance), nullptr);
  EXPECT_NEAR(std::get<double>(against->readings.find(ReadingId::Advance)->value),
              std::get<double>(still->readings.find(ReadingId::Advance)->value), 0.5);
}

TEST_F(SeveralThings, NothingIsInMillimetresWhereTheLureCannotBeTheRuler) {
  request_.scale.reset();
  request_.ownLength = OwnLength{Millimetres(40.0), Millimetres(0.2)};
  for (std::size_t n = 4; n < track_.frameCount; ++n) track_.marks[1].samples[n].seen = false;
  const auto read = readPass(request_, *clip_, track_);
  ASSERT_TRUE(read);
  EXPECT_EQ(read->readings.find(ReadingId::TravelSpeed), nullptr);
  EXPECT_EQ(read->readings.find(ReadingId::OwnScale), nullptr);
}

/// Filmed, followed and read: twitched, pulled from where it lies, let go.
TEST(SeveralThingsFilmed, AreFoundAndReadFromOneFollowing) {
  const test::TemporaryFolder folder;
  RehearsalScene scene = test::smallFall();
  TwitchPullFall things;
  things.jerks = {.count = 2,
                  .first_s = 0.3,
                  .every_s = 0.9,
                  .start_mm = -170.0,
                  .height_mm = 70.0,
                  .advance_mm = 60.0,
                  .back_mm = 20.0};
  things.pullFrom_s = 2.1;
  things.pull = {.speed_mm_s = 110.0, .wobble_Hz = 0.0, .wobble_deg = 0.0};
  things.fallFrom_s = 3.7;
  things.sink = {.speed_mm_s = 150.0, .timeConstant_s = 0.08, .bottom_mm = -1000.0, .attitude_deg = 0.0};
  scene.motion = things;
  scene.length = Seconds(4.6);
  ASSERT_TRUE(filmRehearsal(scene, folder / "several.mp4"));
  const auto clip = *Clip::open(folder / "several.mp4");
  const PassRequest request = requestFor(RehearsalTank(scene), folder / "several.mp4");
  const auto done = measure({request, clip->info().fingerprint, nullptr}, clip);
  ASSERT_TRUE(done) << done.error().message;
  const ReadingSet& set = done->measurement->readings;
  std::map<std::size_t, std::set<ReadingId>> read;
  for (const Reading& r : set.readings) read[*r.stretch].insert(r.id);
  ASSERT_GE(read.size(), 3U);
  EXPECT_TRUE(read[0].contains(ReadingId::TwitchCount));
  EXPECT_NEAR(test::valueOf(set, ReadingId::Advance), 60.0, 3.0);
  EXPECT_NEAR(test::valueOf(set, ReadingId::TravelSpeed), 110.0, 4.0);
  EXPECT_NEAR(test::valueOf(set, ReadingId::FallRate), 150.0, 5.0);
}

}  // namespace
}  // namespace fin
