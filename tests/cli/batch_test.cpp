// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>
#include <sys/stat.h>
#include <unistd.h>

#include <filesystem>

#include "core/exchange/pass_json.h"
#include "support/command_line.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

RehearsalScene shortPull() {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(0.8);
  return scene;
}

/// A day's folder: two passes, one whose clip is missing, one that is no pass at all.
void fillFolder(const test::TemporaryFolder& folder) {
  const RehearsalScene scene = shortPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "a.mp4"));
  fs::create_directories(folder / "deeper");
  fs::copy_file(folder / "a.mp4", folder / "deeper/b.mp4");
  PassRequest request = requestFor(RehearsalTank(scene), folder / "a.mp4");
  test::write(folder / "a.pass.json", writePassRequest(request, folder.path()));
  request.clip = folder / "deeper/b.mp4";
  test::write(folder / "deeper/b.pass.json", writePassRequest(request, folder / "deeper"));
  request.clip = folder / "gone.mp4";
  test::write(folder / "gone.pass.json", writePassRequest(request, folder.path()));
  test::write(folder / "wrong.pass.json", "{");
}

TEST(BatchCommand, ReadsAFolderPastBadOnesAndGoesOnWhereItWas) {
  const test::TemporaryFolder folder;
  fillFolder(folder);
  const test::Ran first = test::runCli(folder, "batch " + folder.path().string() + " --jobs 2");
  EXPECT_EQ(first.exit, 3) << "the worst of what went wrong: a clip that is not there";
  EXPECT_NE(first.err.find("2 read, 0 there already, 2 failed, 0 left"), std::string::npos) << first.err;
  EXPECT_NE(first.err.find("gone.mp4"), std::string::npos) << "which, and why";
  EXPECT_NE(test::slurp(folder / "a.readings.json").find("\"travel_speed\""), std::string::npos);
  EXPECT_NE(test::slurp(folder / "deeper/b.track.csv").find("nose_x_px"), std::string::npos);
  EXPECT_FALSE(fs::exists(folder / "gone.readings.json"));

  const test::Ran again = test::runCli(folder, "batch '" + (folder / "*.pass.json").string() + "'");
  EXPECT_NE(again.err.find("0 read, 1 there already, 2 failed"), std::string::npos) << again.err;
}

/// One pass that was read, and what is done to its files before the batch runs again.
class BatchAgain : public testing::Test {
 protected:
  void SetUp() override {
    const RehearsalScene scene = shortPull();
    ASSERT_TRUE(filmRehearsal(scene, folder_ / "a.mp4"));
    request_ = requestFor(RehearsalTank(scene), folder_ / "a.mp4");
    writePass();
    ASSERT_EQ(run().exit, 0);
    // Whatever the clocks say: the results are the newest of all files.
    fs::last_write_time(result(), fs::file_time_type::clock::now() + std::chrono::hours(1));
    fs::last_write_time(track(), fs::file_time_type::clock::now() + std::chrono::hours(1));
  }
  void writePass() { test::write(folder_ / "a.pass.json", writePassRequest(request_, folder_.path())); }
  [[nodiscard]] fs::path result() const { return folder_ / "a.readings.json"; }
  [[nodiscard]] fs::path track() const { return folder_ / "a.track.csv"; }
  [[nodiscard]] test::Ran run() { return test::runCli(folder_, "batch " + folder_.path().string()); }
  void expectReadAgain() {
    const test::Ran again = run();
    EXPECT_EQ(again.exit, 0) << again.err;
    EXPECT_NE(again.err.find("1 read, 0 there already"), std::string::npos) << again.err;
  }

  test::TemporaryFolder folder_;
  PassRequest request_;
};

TEST_F(BatchAgain, KeepsWhatIsOfThisPassAndThisClip) {
  EXPECT_NE(run().err.find("0 read, 1 there already"), std::string::npos);
  // Said of the rig, and of where the clip lies, is no other measurement.
  request_.rigNote = "on a windy afternoon";
  writePass();
  EXPECT_NE(run().err.find("0 read, 1 there already"), std::string::npos);
}

TEST_F(BatchAgain, FindsTheMarksOnceAndKeepsWhatWasFound) {
  request_.marks.clear();
  request_.findMarks = true;
  request_.view = View::Top;
  request_.rigNote = "found";
  writePass();
  // What is there has its marks from a person; they are as good as asked for.
  EXPECT_NE(run().err.find("0 read, 1 there already"), std::string::npos);
  fs::remove(result());
  EXPECT_NE(run().err.find("1 read, 0 there already"), std::string::npos);
  EXPECT_NE(run().err.find("0 read, 1 there already"), std::string::npos);
}

TEST_F(BatchAgain, ReadsAPassThatWasChangedAlthoughItsResultIsNewer) {
  request_.scale->length = request_.scale->length * 2.0;
  writePass();
  expectReadAgain();
}

TEST_F(BatchAgain, ReadsAnOlderClipThatWasPutInPlace) {
  RehearsalScene other = shortPull();
  other.seed += 1;
  fs::remove(folder_ / "a.mp4");
  ASSERT_TRUE(filmRehearsal(other, folder_ / "a.mp4"));
  fs::last_write_time(folder_ / "a.mp4", fs::file_time_type::clock::now() - std::chrono::hours(48));
  expectReadAgain();
}

TEST_F(BatchAgain, MakesATrackThatWasDeleted) {
  fs::remove(track());
  expectReadAgain();
  EXPECT_TRUE(fs::exists(track()));
}

TEST_F(BatchAgain, IsNotThrownByAResultThatIsNone) {
  for (const char* text : {"", "[]", "null", R"({"method": "eight"})", R"({"method": null, "made_from": {}})",
                           R"({"method": [8], "made_from": {"pass": 7, "clip_bytes": -1}})",
                           R"({"method": 8, "made_from": {"pass": {"format": "agile-fin-pass/1"}}})"}) {
    test::write(result(), text);
    expectReadAgain();
  }
}

TEST_F(BatchAgain, SaysWhereAResultCannotBeWrittenAndGoesOn) {
  fs::remove(result());
  fs::create_directory(result());
  const test::Ran folder = run();
  EXPECT_EQ(folder.exit, 2) << folder.err;
  EXPECT_NE(folder.err.find("a.readings.json cannot be written"), std::string::npos) << folder.err;
  fs::remove(result());
  ASSERT_EQ(::mkfifo(result().c_str(), 0600), 0);
  EXPECT_EQ(run().exit, 2) << "and does not wait for somebody to read a pipe";
  EXPECT_FALSE(fs::exists(folder_ / "a.readings.json.part"));
}

TEST(BatchCommand, PassesOverAFolderThatMayNotBeRead) {
  if (::geteuid() == 0) GTEST_SKIP() << "an administrator may read everything";
  const test::TemporaryFolder folder;
  fillFolder(folder);
  fs::permissions(folder / "deeper", fs::perms::none);
  const test::Ran ran = test::runCli(folder, "batch " + folder.path().string());
  fs::permissions(folder / "deeper", fs::perms::owner_all);
  EXPECT_NE(ran.err.find("deeper is passed over"), std::string::npos) << ran.err;
  EXPECT_NE(ran.err.find("1 read"), std::string::npos) << ran.err;
}

TEST(BatchCommand, PutsReadingsIntoOneFolderAndSaysWhenThereIsNothing) {
  const test::TemporaryFolder folder;
  fillFolder(folder);
  const test::Ran ran = test::runCli(
      folder, "batch " + (folder / "deeper").string() + " --out " + (folder / "results").string());
  EXPECT_EQ(ran.exit, 0) << ran.err;
  EXPECT_TRUE(fs::exists(folder / "results/b.readings.json"));
  // Two of one name in two folders are kept apart.
  fs::copy_file(folder / "deeper/b.pass.json", folder / "b.pass.json");
  fs::copy_file(folder / "a.mp4", folder / "b.mp4");
  const test::Ran twice =
      test::runCli(folder, "batch " + folder.path().string() + " --out " + (folder / "apart").string());
  EXPECT_NE(twice.err.find("3 read"), std::string::npos) << twice.err;
  EXPECT_TRUE(fs::exists(folder / "apart/b.readings.json"));
  EXPECT_TRUE(fs::exists(folder / "apart/deeper/b.readings.json"));
  const test::Ran collides = test::runCli(folder, "batch " + (folder / "b.pass.json").string() + " " +
                                                      (folder / "deeper/b.pass.json").string() + " --out " +
                                                      (folder / "one").string());
  EXPECT_EQ(collides.exit, 2) << "nothing is written over";
  EXPECT_FALSE(fs::exists(folder / "one"));
  fs::create_directories(folder / "empty");
  EXPECT_EQ(test::runCli(folder, "batch " + (folder / "empty").string()).exit, 2);
}

}  // namespace
}  // namespace fin
