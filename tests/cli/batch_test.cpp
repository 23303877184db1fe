// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <filesystem>

#include "core/exchange/pass_json.h"
#include "support/command_line.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

/// A day's folder: two passes, one whose clip is missing, one that is no pass at all.
void fillFolder(const test::TemporaryFolder& folder) {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(0.8);
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
  // A pass that was changed since is read anew.
  fs::last_write_time(folder / "a.pass.json", fs::file_time_type::clock::now() + std::chrono::seconds(5));
  const test::Ran changed = test::runCli(folder, "batch " + (folder / "a.pass.json").string());
  EXPECT_EQ(changed.exit, 0) << changed.err;
  EXPECT_NE(changed.err.find("1 read"), std::string::npos) << changed.err;
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
