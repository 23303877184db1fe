// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/log.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include "core/records/day_readings.h"
#include "support/logged.h"
#include "support/reading_words.h"
#include "support/small_scene.h"

namespace fin {
namespace {

PassRequest requestOn(const std::filesystem::path& clip) {
  test::write(clip, "stands for a clip: the log only asks by what it is known again");
  PassRequest request;
  request.clip = clip;
  request.scale = ScaleMark{{10.0, 20.0}, {110.5, 20.0}, Millimetres(250.0), Millimetres(0.5)};
  request.marks = {{MarkName::Nose, 3, {50.25, 60.5}}};
  return request;
}

TEST(Log, KeepsAPassWithTrackAndReadings) {
  const test::TemporaryFolder folder;
  const PassRequest request = requestOn(folder / "a.mp4");
  PassId id;
  {
    const auto log = Log::open(folder / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    id = test::addPass(**log, "First", request);
    Track track{3, 2, {{MarkName::Nose, {{true, {50.25, 60.5}, 1.0}, {}}}}};
    track.outline = {{},
                     {true, true, 120.5, {40.25, 30.5}, 0.25, 30.0, 8.0, 96.5, {{{1, 2}, {3, 4}}, {{5, 6}}}}};
    track.brightness = {101.5, std::nullopt};
    const ReadingSet set{
        {{ReadingId::FallRate, 210.5, "mm/s", 1.5, 80.0, Grade::Fair, {"a note"}},
         {ReadingId::FallMode, std::string("plumb"), "text", std::nullopt, 80.0, Grade::Good, {}}},
        {{ReadingId::RunningDepth, "no waterline is marked"}}};
    test::keepReadings(**log, id, set, track);
  }
  const auto log = Log::open(folder / "day.finlog");
  ASSERT_TRUE(log);
  const auto pass = (*log)->pass(id);
  ASSERT_TRUE(pass) << pass.error().message;
  EXPECT_EQ(pass->title, "First");
  EXPECT_EQ(pass->request, request);
  EXPECT_EQ(pass->clip, *fingerprintOf(request.clip));
  const auto measured = (*log)->measurement(id);
  ASSERT_TRUE(measured && *measured);
  const Measurement& kept = **measured;
  EXPECT_EQ(stateOf(&kept, request, pass->clip), MeasurementState::Current);
  EXPECT_EQ(kept.frames, (FrameCounts{2, 1, 0}));
  EXPECT_GT(kept.madeAt_s, 1.7e9);
  EXPECT_EQ(kept.track.marks[0].samples[0].at, (PixelPoint{50.25, 60.5}));
  EXPECT_FALSE(kept.track.marks[0].samples[1].seen);
  const auto& outline = kept.track.outline;
  ASSERT_EQ(outline.size(), 2U);
  EXPECT_FALSE(outline[0].seen);
  EXPECT_TRUE(outline[1].seen && outline[1].whole);
  EXPECT_EQ(outline[1].area_px2, 120.5);
  EXPECT_EQ(outline[1].centre, (PixelPoint{40.25, 30.5}));
  EXPECT_EQ(outline[1].brightness, 96.5);
  EXPECT_EQ(outline[1].contours, (std::vector<std::vector<PixelPoint>>{{{1, 2}, {3, 4}}, {{5, 6}}}));
  EXPECT_EQ(kept.track.brightness, (std::vector<std::optional<double>>{101.5, std::nullopt}));
  const ReadingSet& set = kept.readings;
  EXPECT_EQ(std::get<double>(set.find(ReadingId::FallRate)->value), 210.5);
  EXPECT_EQ(set.find(ReadingId::FallRate)->notes, std::vector<std::string>{"a note"});
  EXPECT_EQ(std::get<std::string>(set.find(ReadingId::FallMode)->value), "plumb");
  EXPECT_EQ(set.refused.front().why, "no waterline is marked");
  const auto alone = (*log)->readingsOf(id);
  ASSERT_TRUE(alone && *alone);
  EXPECT_EQ((*alone)->readings.readings.size(), 2U);
  EXPECT_TRUE((*alone)->track.brightness.empty()) << "the track is not read with them";
}

TEST(Log, KeepsADaysPlanAndWhichClipIsWhose) {
  const test::TemporaryFolder folder;
  DayPlan plan;
  plan.name = "A day at the trough";
  plan.questions = {"fall", "wobble"};
  plan.rack.models = {
      {.id = 1, .name = "Vinto 11", .weight_g = 9.5, .graded = false, .whyNotGraded = "ours"}};
  plan.rack.rigs = {
      {.id = 2, .model = 1, .name = "7 g head", .head_g = 7.0, .insertPlace = InsertPlace::High}};
  plan.water.salinity_g_kg = 6.0;
  plan.filming.captureRate_Hz = 240.0;
  plan.heldEqual[0].exception = "another rod after noon";
  plan.options.tasks = {{Protocol::Retrieve, View::Top, {200.0, 300.0}}};
  plan.sheet = *makeSheet({2}, plan.options);
  plan.sheet[1].state = PassState::Fouled;
  plan.sheet[1].whyFouled = "a leaf";
  plan.cadence.pause = Seconds(3.0);
  {
    const auto log = Log::open(folder / "day.finlog");
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan));
    test::addPass(**log, "First", requestOn(folder / "a.mp4"), plan.sheet[1].id, "top");
  }
  const auto log = Log::open(folder / "day.finlog");
  const auto kept = (*log)->plan();
  ASSERT_TRUE(kept) << kept.error().message;
  EXPECT_EQ(*kept, plan);
  EXPECT_EQ((*log)->passes()->front().planned, plan.sheet[1].id);
  EXPECT_EQ((*log)->passes()->front().camera, "top");
  SQLite::Database plain((folder / "day.finlog").string());
  EXPECT_EQ(
      plain.execAndGet("SELECT count(*) FROM planned_pass WHERE state = 'fouled' AND rig_id = 2").getInt(),
      1);
}

TEST(Log, KeepsWhatTheDayIsDecidedBy) {
  const test::TemporaryFolder folder;
  VerdictPlan plan;
  plan.wishes = {{ReadingId::PauseDrift, Direction::Target, 2.5, 2.0, 260.0, PointsCurve{12.0, {}, 0.0}},
                 {ReadingId::WobbleAngle, Direction::More, 0.0, 0.5, {}, PointsCurve{10.0, 18.0, 40.0}}};
  plan.wishes.push_back(usualWish(ReadingId::FallMode));
  plan.wishes.back().className = "glide";
  plan.purposes.push_back({"Under the ice", {usualWish(ReadingId::FallRate)}});
  plan.interest = "one of us designed the Pellow";
  {
    const auto log = Log::open(folder / "day.finlog");
    EXPECT_EQ(*(*log)->verdict(), VerdictPlan{});
    ASSERT_TRUE((*log)->saveVerdict(VerdictPlan{}, plan));
  }
  EXPECT_EQ(*(*Log::open(folder / "day.finlog"))->verdict(), plan);
}

TEST(Log, KeepsWhatWasScoredByEye) {
  const test::TemporaryFolder folder;
  const auto log = Log::open(folder / "day.finlog");
  const PassId id = test::addPass(**log, "First", requestOn(folder / "a.mp4"));
  ASSERT_TRUE((*log)->addEyeScores({{id, ReadingId::WobbleAngle, 7.0},
                                    {id, ReadingId::WobbleAngle, 6.0},
                                    {id, ReadingId::FallRate, 2.0}}));
  const auto scores = (*log)->eyeScores();
  ASSERT_EQ(scores->size(), 3U);
  EXPECT_EQ(scores->at(1).score, 6.0);
  EXPECT_EQ(scores->at(2).property, ReadingId::FallRate);
  ASSERT_TRUE((*log)->forgetEyeScores(ReadingId::WobbleAngle));
  EXPECT_EQ((*log)->eyeScores()->size(), 1U);
}

TEST(Log, KeepsTheGainThatEachCameraIsHeardWith) {
  const test::TemporaryFolder folder;
  {
    const auto log = Log::open(folder / "day.finlog");
    EXPECT_TRUE((*log)->cameraGains_dB()->empty());
    ASSERT_TRUE((*log)->keepCameraGain("fixed", 4.5));
    ASSERT_TRUE((*log)->keepCameraGain("chase", -3.0));
    ASSERT_TRUE((*log)->keepCameraGain("chase", std::nullopt));
  }
  const auto log = Log::open(folder / "day.finlog");
  EXPECT_EQ(*(*log)->cameraGains_dB(), (std::map<std::string, double>{{"fixed", 4.5}}));
}

TEST(Log, KeepsSizeAndTimeByCameraAndDayLensesAndTheSharedInstant) {
  const test::TemporaryFolder folder;
  KeptCalibration kept{"fixed", "2026-11-25", {}, folder / "a.mp4"};
  kept.calibration.captureRate = Hertz(240.0);
  kept.calibration.scale = ScaleMark{{1, 2}, {301, 2}, Millimetres(300.0), Millimetres(0.5)};
  const KeptLens lens{
      "fixed", 1280, 720, "flat port", {900.0, 901.0, 640.0, 359.0, {-0.2, 0.1, 0.0, 0.0, 0.0}}, Pixels(0.2)};
  PassId id;
  {
    const auto log = Log::open(folder / "day.finlog");
    id = test::addPass(**log, "First", requestOn(folder / "a.mp4"));
    ASSERT_TRUE((*log)->keepCalibration("fixed", "2026-11-25", std::nullopt, kept));
    ASSERT_TRUE((*log)->keepLens({"fixed", 1280, 720, "flat port", {}, Pixels(0.9)}));
    ASSERT_TRUE((*log)->keepLens(lens));
    const LoggedPass before = *(*log)->pass(id);
    LoggedPass after = before;
    after.sharedInstant = Seconds(1.25);
    ASSERT_TRUE((*log)->changePasses({{before, after}}));
  }
  const auto log = Log::open(folder / "day.finlog");
  EXPECT_EQ((*log)->calibrations()->at(0), kept);
  EXPECT_EQ(*(*log)->lenses(), std::vector{lens});
  EXPECT_EQ((*log)->pass(id)->sharedInstant, Seconds(1.25));
  ASSERT_TRUE((*log)->keepCalibration("fixed", "2026-11-25", kept, std::nullopt));
  EXPECT_TRUE((*log)->calibrations()->empty());
}

TEST(Log, MovesWithItsClips) {
  const test::TemporaryFolder folder;
  std::filesystem::create_directory(folder / "here");
  {
    const auto log = Log::open(folder / "here/day.finlog");
    test::addPass(**log, "First", requestOn(folder / "here/a.mp4"));
  }
  std::filesystem::rename(folder / "here", folder / "there");
  const auto log = Log::open(folder / "there/day.finlog");
  const auto passes = (*log)->passes();
  ASSERT_TRUE(passes);
  EXPECT_TRUE(std::filesystem::exists(passes->front().request.clip)) << passes->front().request.clip;
}

TEST(Log, KeepsWhatWasFoundUntilSomebodyHasLooked) {
  const test::TemporaryFolder folder;
  const PassRequest request = requestOn(folder / "a.mp4");
  const Finding finding{{{{MarkName::Nose, 3, {50.25, 60.5}}, 0.75}}, {}};
  const auto log = Log::open(folder / "day.finlog");
  ASSERT_TRUE(log) << log.error().message;
  const PassId id = test::addPass(**log, "First", request);
  test::keepReadings(**log, id, {{{ReadingId::FallRate, 210.5, "mm/s", 1.5, 80.0, Grade::Fair, {}}}, {}});
  FingerprintCache fingerprints;
  const auto compared = [&] { return dayReadings(**log, {}, fingerprints)->current.size(); };
  EXPECT_EQ(compared(), 1U);
  const LoggedPass placed = *(*log)->pass(id);
  LoggedPass waiting = placed;
  waiting.finding = finding;
  ASSERT_TRUE((*log)->changePasses({{placed, waiting}}));
  const auto again = Log::open(folder / "day.finlog");
  ASSERT_TRUE(again);
  EXPECT_EQ((*again)->pass(id)->finding, finding);
  EXPECT_EQ(compared(), 0U);
  LoggedPass none = waiting;
  none.finding = Finding{{}, "nothing moves"};
  ASSERT_TRUE((*log)->changePasses({{waiting, none}}));
  EXPECT_EQ((*log)->pass(id)->finding->reason, "nothing moves");
  EXPECT_EQ((*log)->pass(id)->finding->sure(), 0.0);
  ASSERT_TRUE((*log)->changePasses({{none, placed}}));
  EXPECT_FALSE((*log)->pass(id)->finding);
  EXPECT_EQ(compared(), 1U);
}

TEST(Log, BringsARemovedPassBack) {
  const test::TemporaryFolder folder;
  const auto log = Log::open(folder / "day.finlog");
  const PassId id = test::addPass(**log, "First", requestOn(folder / "a.mp4"));
  const LoggedPass there = *(*log)->pass(id);
  LoggedPass removed = there;
  removed.removed = true;
  ASSERT_TRUE((*log)->changePasses({{there, removed}}));
  EXPECT_TRUE((*log)->passes()->empty());
  ASSERT_TRUE((*log)->changePasses({{removed, there}}));
  EXPECT_EQ((*log)->passes()->size(), 1U);
}

TEST(Log, OpensANewerOneForReadingOnlyAndSaysWhy) {
  const test::TemporaryFolder folder;
  const PassRequest request = requestOn(folder / "a.mp4");
  PassId id;
  {
    const auto log = Log::open(folder / "day.finlog");
    id = test::addPass(**log, "First", request);
  }
  SQLite::Database((folder / "day.finlog").string(), SQLite::OPEN_READWRITE)
      .exec("PRAGMA user_version = 999");
  const auto log = Log::open(folder / "day.finlog");
  ASSERT_TRUE(log) << log.error().message;
  EXPECT_NE((*log)->readOnlyReason().find("newer"), std::string::npos);
  EXPECT_EQ((*log)->passes()->size(), 1U);
  const LoggedPass pass = *(*log)->pass(id);
  const auto refused = (*log)->changePasses({{pass, pass}});
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().code, ErrorCode::NotWritable);
}

TEST(Log, RefusesAFileThatIsNoLogAndAPlaceWhereNoneCanBe) {
  const test::TemporaryFolder folder;
  test::write(folder / "text.finlog",
              "These are notes, and rather long ones, about lures and nothing else at all.");
  EXPECT_EQ(Log::open(folder / "text.finlog").error().code, ErrorCode::Unreadable);
  EXPECT_EQ(Log::open(folder / "no such folder/day.finlog").error().code, ErrorCode::NotWritable);
}

}  // namespace
}  // namespace fin
