// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/log.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

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
  RowId id = 0;
  {
    const auto log = Log::open(folder / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    id = *(*log)->addPass("First", request);
    const Track track{3, 2, {{MarkName::Nose, {{true, {50.25, 60.5}, 1.0}, {}}}}};
    ASSERT_TRUE((*log)->saveTrack(id, {track, request}));
    const ReadingSet set{{{"fall_rate", 210.5, "mm/s", 1.5, 80.0, Grade::Fair, {"a note"}},
                          {"fall_mode", std::string("plumb"), "text", std::nullopt, 80.0, Grade::Good, {}}},
                         {{"running_depth", "no waterline is marked"}}};
    ASSERT_TRUE((*log)->saveReadings(id, set));
  }
  const auto log = Log::open(folder / "day.finlog");
  ASSERT_TRUE(log);
  const auto pass = (*log)->pass(id);
  ASSERT_TRUE(pass) << pass.error().message;
  EXPECT_EQ(pass->title, "First");
  EXPECT_EQ(pass->request, request);
  EXPECT_EQ(pass->clip, *printOf(request.clip));
  const auto track = (*log)->track(id);
  ASSERT_TRUE(track && *track);
  EXPECT_EQ((*track)->track.marks[0].samples[0].at, (PixelPoint{50.25, 60.5}));
  EXPECT_FALSE((*track)->track.marks[0].samples[1].seen);
  EXPECT_TRUE(sameFollowing((*track)->followedFrom, request));
  const auto set = (*log)->readings(id);
  ASSERT_TRUE(set);
  EXPECT_EQ(std::get<double>(set->find("fall_rate")->value), 210.5);
  EXPECT_EQ(set->find("fall_rate")->notes, std::vector<std::string>{"a note"});
  EXPECT_EQ(std::get<std::string>(set->find("fall_mode")->value), "plumb");
  EXPECT_EQ(set->refused.front().why, "no waterline is marked");
}

TEST(Log, MovesWithItsClips) {
  const test::TemporaryFolder folder;
  std::filesystem::create_directory(folder / "here");
  {
    const auto log = Log::open(folder / "here/day.finlog");
    ASSERT_TRUE((*log)->addPass("First", requestOn(folder / "here/a.mp4")));
  }
  std::filesystem::rename(folder / "here", folder / "there");
  const auto log = Log::open(folder / "there/day.finlog");
  const auto passes = (*log)->passes();
  ASSERT_TRUE(passes);
  EXPECT_TRUE(std::filesystem::exists(passes->front().request.clip)) << passes->front().request.clip;
}

TEST(Log, BringsARemovedPassBack) {
  const test::TemporaryFolder folder;
  const auto log = Log::open(folder / "day.finlog");
  const RowId id = *(*log)->addPass("First", requestOn(folder / "a.mp4"));
  ASSERT_TRUE((*log)->setRemoved(id, true));
  EXPECT_TRUE((*log)->passes()->empty());
  ASSERT_TRUE((*log)->setRemoved(id, false));
  EXPECT_EQ((*log)->passes()->size(), 1U);
}

TEST(Log, OpensANewerOneForReadingOnlyAndSaysWhy) {
  const test::TemporaryFolder folder;
  const PassRequest request = requestOn(folder / "a.mp4");
  RowId id = 0;
  {
    const auto log = Log::open(folder / "day.finlog");
    id = *(*log)->addPass("First", request);
  }
  SQLite::Database((folder / "day.finlog").string(), SQLite::OPEN_READWRITE)
      .exec("PRAGMA user_version = 999");
  const auto log = Log::open(folder / "day.finlog");
  ASSERT_TRUE(log) << log.error().message;
  EXPECT_NE((*log)->readOnlyReason().find("newer"), std::string::npos);
  EXPECT_EQ((*log)->passes()->size(), 1U);
  const auto refused = (*log)->saveRequest(id, request);
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
