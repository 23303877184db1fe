// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include "core/exchange/pass_json.h"
#include "support/command_line.h"

namespace fin {
namespace {

using test::Ran;
using test::slurp;

Ran run(const test::TemporaryFolder& folder, const std::string& arguments) {
  return test::runCli(folder, arguments);
}

TEST(ReadCommand, MeasuresAClipFromAPassFile) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "pull.mp4", Hertz(30.0)));
  test::write(folder / "pull.pass.json",
              writePassRequest(requestFor(RehearsalTank(scene), folder / "pull.mp4"), folder.path()));
  const Ran ran = run(
      folder, "read " + (folder / "pull.pass.json").string() + " --track " + (folder / "track.csv").string());
  EXPECT_EQ(ran.exit, 0) << ran.err;
  EXPECT_EQ(ran.out.front(), '{');
  EXPECT_NE(ran.out.find("agile-fin-readings/1"), std::string::npos);
  EXPECT_NE(ran.out.find("\"wobble_frequency\""), std::string::npos);
  EXPECT_EQ(slurp(folder / "track.csv").rfind("frame,time_s,nose_x_px,nose_y_px,nose_quality,tail_x_px", 0),
            0U);
}

TEST(ReadCommand, ReadsFromStandardInputAndWritesWhereItIsTold) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallFall();
  ASSERT_TRUE(filmRehearsal(scene, folder / "fall.mp4"));
  test::write(folder / "fall.pass.json",
              writePassRequest(requestFor(RehearsalTank(scene), folder / "fall.mp4"), "/elsewhere"));
  const std::string from = " < " + (folder / "fall.pass.json").string();
  const Ran ran = run(folder, "read - --out " + (folder / "readings.json").string() + from);
  EXPECT_EQ(ran.exit, 0) << ran.err;
  EXPECT_TRUE(ran.out.empty());
  EXPECT_NE(slurp(folder / "readings.json").find("\"fall_rate\""), std::string::npos);
  const Ran nowhere =
      run(folder, "read - --out " + (folder / "no such folder/readings.json").string() + from);
  EXPECT_EQ(nowhere.exit, 2);
  EXPECT_FALSE(nowhere.err.empty());
}

TEST(ReadCommand, GivesTheSameNumbersEveryTime) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "pull.mp4"));
  test::write(folder / "pull.json",
              writePassRequest(requestFor(RehearsalTank(scene), folder / "pull.mp4"), folder.path()));
  const Ran first = run(folder, "read " + (folder / "pull.json").string());
  const Ran again = run(folder, "read " + (folder / "pull.json").string());
  EXPECT_EQ(first.exit, 0);
  EXPECT_EQ(first.out, again.out);
}

TEST(ReadCommand, EndsWithTheCodesOfTheContract) {
  const test::TemporaryFolder folder;
  const std::string pass = R"({"format": "agile-fin-pass/1", "clip": "none.mp4", "protocol": "fall",
                               "marks": [{"name": "nose", "frame": 0, "at": [1, 2]}, {"name": "tail", "frame": 0, "at": [9, 9]}]})";
  test::write(folder / "gone.json", pass);
  test::write(folder / "bad.json", "{\"format\": \"agile-fin-pass/1\", \"klip\": 3}");
  const Ran gone = run(folder, "read " + (folder / "gone.json").string());
  EXPECT_EQ(gone.exit, 3);
  EXPECT_NE(gone.err.find("none.mp4"), std::string::npos);
  const Ran bad = run(folder, "read " + (folder / "bad.json").string());
  EXPECT_EQ(bad.exit, 2);
  EXPECT_NE(bad.err.find("clip"), std::string::npos);
  EXPECT_TRUE(bad.out.empty());
  EXPECT_EQ(run(folder, "read " + (folder / "missing.json").string()).exit, 2);
  EXPECT_EQ(run(folder, "measure").exit, 2);
  EXPECT_EQ(run(folder, "--help").exit, 0);
}

TEST(ReadCommand, SaysWhenItsOutputCannotBeWritten) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallFall();
  ASSERT_TRUE(filmRehearsal(scene, folder / "fall.mp4"));
  test::write(folder / "fall.json",
              writePassRequest(requestFor(RehearsalTank(scene), folder / "fall.mp4"), folder.path()));
  const std::string command = std::string(FIN_CLI) + " read " + (folder / "fall.json").string() +
                              " >/dev/full 2>" + (folder / "err").string();
  const int status = std::system(command.c_str());
  EXPECT_EQ(WEXITSTATUS(status), 2);
  EXPECT_NE(slurp(folder / "err").find("cannot be written"), std::string::npos);
  const Ran onto = run(folder, "read " + (folder / "fall.json").string() + " --track /dev/full");
  EXPECT_EQ(onto.exit, 2) << onto.err;
}

TEST(ReadCommand, TellsMarksThatNothingCanHoldFromAWrongRequest) {
  const test::TemporaryFolder folder;
  RehearsalScene scene = test::smallFall();
  ASSERT_TRUE(filmRehearsal(scene, folder / "fall.mp4"));
  PassRequest request = requestFor(RehearsalTank(scene), folder / "fall.mp4");
  for (MarkSeed& mark : request.marks)
    mark.at = {8.0, 8.0 + 4.0 * static_cast<double>(&mark - request.marks.data())};
  test::write(folder / "wall.json", writePassRequest(request, folder.path()));
  const Ran wall = run(folder, "read " + (folder / "wall.json").string());
  EXPECT_EQ(wall.exit, 4) << wall.err;
  EXPECT_TRUE(wall.out.empty());
  request.marks[0].at = {-50.0, 8.0};
  test::write(folder / "outside.json", writePassRequest(request, folder.path()));
  EXPECT_EQ(run(folder, "read " + (folder / "outside.json").string()).exit, 2);
}

TEST(AnyCommand, KnowsItsVersionAndHelp) {
  const test::TemporaryFolder folder;
  EXPECT_EQ(run(folder, "--version").exit, 0);
  EXPECT_NE(run(folder, "--version").out.find('.'), std::string::npos);
  for (const char* command : {"", "read ", "batch ", "ladder ", "split ", "rehearse "})
    EXPECT_EQ(run(folder, std::string(command) + "--help").exit, 0) << command;
}

TEST(FindCommand, ReadsAClipInWhichNobodyPressedAnything) {
  const test::TemporaryFolder folder;
  const RehearsalScene scene = test::smallPull();
  ASSERT_TRUE(filmRehearsal(scene, folder / "pull.mp4"));
  PassRequest request = requestFor(RehearsalTank(scene), folder / "pull.mp4");
  request.marks.clear();
  request.findMarks = true;
  test::write(folder / "pull.pass.json", writePassRequest(request, folder.path()));
  EXPECT_NE(slurp(folder / "pull.pass.json").find("\"marks\": \"find\""), std::string::npos);
  const Ran ran = run(folder, "read " + (folder / "pull.pass.json").string());
  EXPECT_EQ(ran.exit, 0) << ran.err;
  EXPECT_NE(ran.out.find("\"found\""), std::string::npos);
  EXPECT_NE(ran.out.find("\"wobble_frequency\""), std::string::npos);

  PassRequest alike = request;
  alike.looksLike = folder / "marked.pass.json";
  test::write(folder / "alike.pass.json", writePassRequest(alike, folder.path()));
  EXPECT_EQ(run(folder, "read " + (folder / "alike.pass.json").string()).exit, 2) << "there is no such pass";
  const PassRequest marked = requestFor(RehearsalTank(scene), folder / "pull.mp4");
  test::write(folder / "marked.pass.json", writePassRequest(marked, folder.path()));
  const Ran like = run(folder, "read " + (folder / "alike.pass.json").string());
  EXPECT_EQ(like.exit, 0) << like.err;
  EXPECT_NE(like.out.find("\"wobble_frequency\""), std::string::npos);

  request.view = View::HeadOn;
  test::write(folder / "ahead.pass.json", writePassRequest(request, folder.path()));
  const Ran ahead = run(folder, "read " + (folder / "ahead.pass.json").string());
  EXPECT_EQ(ahead.exit, 4);
  EXPECT_NE(ahead.err.find("by hand"), std::string::npos) << ahead.err;
  EXPECT_TRUE(ahead.out.empty());
}

}  // namespace
}  // namespace fin
