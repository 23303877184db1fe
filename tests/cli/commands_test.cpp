// SPDX-License-Identifier: GPL-3.0-or-later
// The ladder and the split of a clip, through the program itself.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "core/exchange/ballot_json.h"
#include "core/exchange/pass_json.h"
#include "core/footage/clip.h"
#include "support/command_line.h"
#include "support/logged.h"
#include "support/numbered_film.h"

namespace fin {
namespace {

using nlohmann::json;
using test::runCli;
using test::slurp;

/// A pull at a speed with a wobble as wide as said; its pass file's path.
std::string pull(const test::TemporaryFolder& folder, double speed, double wobble_deg, const char* rig) {
  RehearsalScene scene = test::smallPull();
  auto& motion = std::get<StraightPull>(scene.motion);
  motion.speed_mm_s = speed;
  motion.wobble_deg = wobble_deg;
  motion.wobble_Hz = 5.0;
  scene.length = Seconds(std::min(2.2, 480.0 / speed));
  const std::string name = "pull-" + std::to_string(static_cast<int>(speed));
  EXPECT_TRUE(filmRehearsal(scene, folder / (name + ".mp4")));
  PassRequest request = requestFor(RehearsalTank(scene), folder / (name + ".mp4"));
  request.rigName = rig;
  const auto file = folder / (name + ".pass.json");
  test::write(file, writePassRequest(request, folder.path()));
  return file.string();
}

TEST(LadderCommand, ReadsPullsOfOneRigAndSaysWhereItBegins) {
  const test::TemporaryFolder folder;
  std::string passes;
  passes += " " + pull(folder, 220.0, 30.0, "Vinto 11");
  passes += " " + pull(folder, 150.0, 20.0, "Vinto 11");
  passes += " " + pull(folder, 290.0, 31.0, "another one");
  const auto ran = runCli(folder, "ladder" + passes);
  ASSERT_EQ(ran.exit, 0) << ran.err;
  const json out = json::parse(ran.out);
  EXPECT_EQ(out["format"], "agile-fin-readings/1");
  ASSERT_EQ(out["points"].size(), 3U);
  EXPECT_NEAR(out["points"][0]["speed_mm_s"].get<double>(), 150.0, 6.0) << "by rising speed";
  EXPECT_NEAR(out["points"][1]["action_deg"].get<double>(), 30.0, 3.0);
  ASSERT_EQ(out["refused"].size(), 2U);
  EXPECT_NE(out["refused"][0]["why"].get<std::string>().find("slowest pull filmed already"),
            std::string::npos);
  ASSERT_EQ(out["warnings"].size(), 1U);
  EXPECT_NE(out["warnings"][0].get<std::string>().find("another rig (another one)"), std::string::npos);
}

TEST(LadderCommand, ReadsTwitchesOfOneRigAndSaysWhenItKeepsItsDepth) {
  const test::TemporaryFolder folder;
  std::string passes;
  // Two intervals; it rises in the shorter pauses and sinks in the longer ones.
  for (const auto& [every_s, drift] : {std::pair(0.7, 40.0), {1.1, -20.0}}) {
    RehearsalScene scene = test::smallJerks();
    auto& jerks = std::get<Jerks>(scene.motion);
    jerks.every_s = every_s;
    jerks.drift_mm_s = drift;
    scene.length = Seconds(0.3 + 3.0 * every_s);
    const std::string name = "twitched-" + std::to_string(static_cast<int>(10.0 * every_s));
    EXPECT_TRUE(filmRehearsal(scene, folder / (name + ".mp4")));
    const auto file = folder / (name + ".pass.json");
    test::write(file,
                writePassRequest(requestFor(RehearsalTank(scene), folder / (name + ".mp4")), folder.path()));
    passes += " " + file.string();
  }
  const auto ran = runCli(folder, "ladder" + passes);
  ASSERT_EQ(ran.exit, 0) << ran.err;
  const json out = json::parse(ran.out);
  EXPECT_EQ(out["protocol"], "twitch");
  ASSERT_EQ(out["readings"].size(), 2U) << ran.out;
  // 28 mm at 0.7 s, -22 at 1.1: level at 0.7 + 0.4 · 28/50.
  EXPECT_EQ(out["readings"][1]["name"], "level_interval");
  EXPECT_NEAR(out["readings"][1]["value"].get<double>(), 0.924, 0.03);
}

/// A fall at a rate on a head of so many grams in the water; its pass file's path.
std::string fall(const test::TemporaryFolder& folder, double rate, std::optional<double> head_g) {
  RehearsalScene scene = test::smallFall();
  std::get<Sink>(scene.motion).speed_mm_s = rate;
  const std::string name = "fall-" + std::to_string(static_cast<int>(rate));
  EXPECT_TRUE(filmRehearsal(scene, folder / (name + ".mp4")));
  PassRequest request = requestFor(RehearsalTank(scene), folder / (name + ".mp4"));
  if (head_g) request.head = RigHead{*head_g};
  const auto file = folder / (name + ".pass.json");
  test::write(file, writePassRequest(request, folder.path()));
  return file.string();
}

TEST(WeightCommand, TellsTheBodysWeightFromItsFallsOnTwoHeads) {
  const test::TemporaryFolder folder;
  const auto ran =
      runCli(folder, "weight " + fall(folder, 150.0, 2.0) + " " + fall(folder, 200.0, 5.0) + " --head 3.5");
  ASSERT_EQ(ran.exit, 0) << ran.err;
  const json out = json::parse(ran.out);
  const json& body = out["readings"][0];
  EXPECT_EQ(body["name"], "body_weight");
  // (150² · 5 − 200² · 2) / (200² − 150²), by the rates that the scenes were made with.
  EXPECT_NEAR(body["value"].get<double>(), 1.857, body["u95"].get<double>());
  const json& rate = out["readings"][1];
  EXPECT_EQ(rate["head_in_water_g"], 3.5);
  EXPECT_NEAR(rate["value"].get<double>(), std::sqrt(0.5 * (150.0 * 150.0 + 200.0 * 200.0)),
              rate["u95"].get<double>());
  EXPECT_EQ(out["points"].size(), 2U);
}

TEST(WeightCommand, AsksForTheHeadBeforeItFollowsAnything) {
  const test::TemporaryFolder folder;
  PassRequest request;
  request.clip = folder / "not-there.mp4";
  request.protocol = Protocol::Fall;
  request.marks = {{MarkName::Nose, 0, {80.0, 20.0}}, {MarkName::Tail, 0, {0.0, 20.0}}};
  test::write(folder / "a.pass.json", writePassRequest(request, folder.path()));
  const auto ran = runCli(folder, "weight " + (folder / "a.pass.json").string());
  EXPECT_EQ(ran.exit, 2) << "3 would mean that it looked for the clip";
  EXPECT_NE(ran.err.find("rig.head_in_water_g"), std::string::npos) << ran.err;
}

TEST(CompareCommand, TellsTheRigsOfADayApart) {
  const test::TemporaryFolder folder;
  {
    const auto log = Log::open(folder / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    DayPlan plan;
    const double rates[4][3] = {{402, 411, 395}, {428, 440, 419}, {405, 417, 399}, {470, 478, 455}};
    for (int r = 0; r < 4; ++r) {
      plan.rack.models.push_back({.id = r + 1, .name = std::string(1, static_cast<char>('A' + r))});
      plan.rack.rigs.push_back({.id = r + 1, .model = r + 1});
      for (int b = 0; b < 3; ++b) {
        PlannedPass planned{.id = 3 * r + b + 1, .rig = r + 1, .protocol = Protocol::Fall, .block = b + 1};
        planned.state = PassState::Done;
        plan.sheet.push_back(planned);
      }
    }
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan));
    for (const PlannedPass& planned : plan.sheet) {
      PassRequest request;
      request.protocol = Protocol::Fall;
      request.clip = folder / ("fall " + std::to_string(planned.id.value()) + ".mp4");
      test::write(request.clip, request.clip.string());
      const PassId id = test::addPass(**log, "fall", request, planned.id);
      const double rate = rates[planned.rig.value() - 1][planned.block - 1];
      test::keepReadings(**log, id, {{{ReadingId::FallRate, rate, "mm/s", 0.0, 60.0}}, {}});
    }
  }
  const std::string log = (folder / "day.finlog").string();
  const auto ran = runCli(folder, "compare " + log + " --reading fall_rate --reading rise_rate");
  ASSERT_EQ(ran.exit, 0) << ran.err;
  const json readings = json::parse(ran.out)["readings"];
  ASSERT_EQ(readings.size(), 2U);
  EXPECT_EQ(readings[0]["compared_by"], "ratio");
  EXPECT_EQ(readings[0]["taken_out"], json::array({"blocks"}));
  EXPECT_EQ(readings[0]["rigs"][0]["rig"], "D");
  EXPECT_EQ(readings[0]["rigs"][3]["places"], json::array({3, 4}));
  ASSERT_EQ(readings[0]["pairs"].size(), 6U);
  for (const json& pair : readings[0]["pairs"]) {
    const bool close = pair["a"] == "C" && pair["b"] == "A";
    EXPECT_EQ(pair["apart"], !close) << pair;
    EXPECT_EQ(pair.contains("passes_wanted"), close) << pair;
    EXPECT_NEAR(pair["p"].get<double>(), close ? 0.145938 : 0.0, 1e-3) << pair;
  }
  EXPECT_TRUE(readings[1]["rigs"].empty()) << "nobody read it";
  EXPECT_FALSE(readings[1]["not_compared"].get<std::string>().empty());
  EXPECT_EQ(runCli(folder, "compare " + log + " --reading nonsense").exit, 2);
  {
    const auto day = Log::open(folder / "day.finlog");
    DayPlan fouled = *(*day)->plan(), before = fouled;
    for (PlannedPass& planned : fouled.sheet) planned.state = PassState::Fouled;
    ASSERT_TRUE((*day)->savePlan(before, fouled));
  }
  const auto none = runCli(folder, "compare " + log);
  EXPECT_EQ(none.exit, 0) << none.err;
  EXPECT_TRUE(json::parse(none.out)["readings"].empty()) << "all fouled";
  EXPECT_EQ(runCli(folder, "compare " + (folder / "nothing.finlog").string()).exit, 3);
  EXPECT_FALSE(std::filesystem::exists(folder / "nothing.finlog")) << "a log is not made by asking";
}

TEST(LadderCommand, NamesThePassThatCannotBeRead) {
  const test::TemporaryFolder folder;
  test::write(folder / "bad.pass.json", "{");
  const auto ran = runCli(folder, "ladder " + (folder / "bad.pass.json").string());
  EXPECT_EQ(ran.exit, 2);
  EXPECT_NE(ran.err.find("bad.pass.json"), std::string::npos) << ran.err;
  EXPECT_TRUE(ran.out.empty());
}

TEST(SplitCommand, SaysWhereTheLureDoesNotComeBackAndWritesNothing) {
  const test::TemporaryFolder folder;
  const std::string pass = pull(folder, 280.0, 25.0, "Vinto 11");
  const auto ran = runCli(folder, "split " + pass);
  EXPECT_EQ(ran.exit, 0) << ran.err;
  EXPECT_NE(ran.err.find("does not come back"), std::string::npos);
  EXPECT_TRUE(ran.out.empty());
  EXPECT_FALSE(std::filesystem::exists(folder / "pull-280-way2.pass.json"));
}

TEST(Commands, AreAskedForByNameAndSayWhatTheyAre) {
  const test::TemporaryFolder folder;
  const auto version = runCli(folder, "--version");
  EXPECT_EQ(version.exit, 0);
  EXPECT_NE(version.out.find('.'), std::string::npos);
  const auto help = runCli(folder, "--help");
  EXPECT_EQ(help.exit, 0);
  for (const char* command : {"read", "batch", "ladder", "split", "rehearse"})
    EXPECT_NE(help.out.find(command), std::string::npos) << command;
  EXPECT_EQ(runCli(folder, "swim").exit, 2);
  EXPECT_EQ(runCli(folder, "").exit, 2) << "nothing is asked for";
}

TEST(LogCommand, ExportsImportsAndMerges) {
  const test::TemporaryFolder folder;
  const auto at = [&folder](const char* name) { return (folder / name).string(); };
  {
    const auto log = Log::open(folder / "day.finlog");
    ASSERT_TRUE(log);
    DayPlan plan;
    plan.rack.models = {{.id = 1, .name = "Vinto"}};
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan));
  }
  const auto out = runCli(folder, "log export " + at("day.finlog") + " " + at("export"));
  ASSERT_EQ(out.exit, 0) << out.err;
  ASSERT_EQ(runCli(folder, "log import " + at("export") + " " + at("again.finlog")).exit, 0);
  ASSERT_EQ(runCli(folder, "log export " + at("again.finlog") + " " + at("export2")).exit, 0);
  EXPECT_EQ(slurp(folder / "export" / "manifest.json"), slurp(folder / "export2" / "manifest.json"));
  const auto merged = runCli(folder, "log merge " + at("day.finlog") + " " + at("again.finlog"));
  EXPECT_EQ(merged.exit, 0) << merged.err;
  EXPECT_NE(merged.err.find("0 rows came in, 2 were the same"), std::string::npos) << merged.err;
  EXPECT_EQ(runCli(folder, "log merge " + at("day.finlog") + " " + at("none")).exit, 3);
  EXPECT_EQ(runCli(folder, "log").exit, 2);
}

/// A log with one day on the water: two rigs at work for two hours, three fish on the first, in clear cold
/// water.
std::string waterLog(const test::TemporaryFolder& folder) {
  const auto file = folder / "season.finlog";
  const auto log = std::move(*Log::open(file));
  DayPlan plan;
  plan.kind = DayKind::Water;
  plan.name = "Canal";
  plan.date = "2027-06-01";
  plan.rack.models = {{.id = 1, .name = "Vinto", .length_mm = 110.0, .finish = Finish::Dull},
                      {.id = 2, .name = "Mirk", .length_mm = 70.0, .finish = Finish::Bright}};
  plan.rack.rigs = {{.id = 11, .model = 1, .heard = {1000.0, 1400.0, {}, {}, "a friend"}},
                    {.id = 12, .model = 2, .heard = {500.0, 700.0, {}, {}, "a friend"}}};
  plan.waterDay.rods = 2;
  plan.conditions = {{1.8e9, Condition::Cloud, 8.0, ""}};
  std::int64_t id = 100;
  const auto at = [&](double hour, RunEventKind kind, int rod, RigId rig = {}) {
    plan.events.push_back({.id = id++, .at_s = 1.8e9 + 3600.0 * hour, .kind = kind, .rod = rod, .rig = rig});
  };
  for (const int rod : {1, 2}) {
    at(0, RunEventKind::Tie, rod, rod == 1 ? 11 : 12);
    at(0, RunEventKind::Fish, rod);
  }
  for (const double hour : {0.5, 1.0, 1.5}) at(hour, RunEventKind::Caught, 1, 11);
  for (const int rod : {1, 2}) at(2, RunEventKind::Rest, rod);
  EXPECT_TRUE(log->savePlan(DayPlan{}, plan));
  return file.string();
}

TEST(WaterCommands, SayTheSameAsTheWindowAsJson) {
  const test::TemporaryFolder folder;
  const std::string log = waterLog(folder);
  const auto told = [&](const std::string& command) {
    const auto ran = runCli(folder, command);
    EXPECT_EQ(ran.exit, 0) << command << ": " << ran.err;
    return json::parse(ran.out, nullptr, false);
  };
  const json tie = told("tie-on " + log + " --day Canal");
  EXPECT_EQ(tie["format"], "agile-fin-tie-on/1");
  EXPECT_EQ(tie["rules"].size(), 20U);
  EXPECT_EQ(tie["rules"][6]["is"], "awake") << "all cloud";
  EXPECT_EQ(tie["rules"][2]["why"], "clarity");
  // Rattle was never read: of its weight 1 and the finish's ½ a third is known.
  EXPECT_NEAR(tie["choices"][0]["known"].get<double>(), 1.0 / 3.0, 1e-9);
  EXPECT_NE(tie["nothing_proposed"].get<std::string>().find("unknown here"), std::string::npos);
  EXPECT_EQ(tie["film"][0], "rattle_level");
  const json run = told("run " + log);
  EXPECT_NEAR(run["rod_hours"].get<double>(), 4.0, 1e-9);
  EXPECT_EQ(run["touches"].size(), 3U);
  EXPECT_EQ(run["advice"]["go"], "stay") << "cloud speaks for up, silence for down";
  EXPECT_NE(run["no_tiers"].get<std::string>().find("share a speed"), std::string::npos);
  EXPECT_NEAR(run["chance_of_silence"].get<double>(), std::exp(-3.0 / 4.0 * 1.0), 1e-9);
  const json catches = told("catches " + log);
  EXPECT_EQ(catches["rigs"][0]["rig"], "Vinto");
  EXPECT_NEAR(catches["rigs"][0]["per_hour"]["value"].get<double>(), 1.5, 1e-9);
  EXPECT_EQ(catches["shrunk"]["how"], "few_rigs");
  EXPECT_TRUE(catches["pairs"][0]["whole"]["ratio"].is_null()) << "the other caught nothing";
  const json box = told("box " + log + " --slots 1 --hours 6");
  EXPECT_EQ(box["format"], "agile-fin-box/1");
  EXPECT_EQ(box["spares"].size(), 2U);
}

TEST(WaterCommands, RefuseWhatIsNoDayOnTheWater) {
  const test::TemporaryFolder folder;
  const std::string log = waterLog(folder);
  EXPECT_EQ(runCli(folder, "run " + log + " --day 2020-01-01").exit, 2);
  EXPECT_EQ(runCli(folder, "tie-on " + (folder / "none.finlog").string()).exit, 3);
  EXPECT_EQ(runCli(folder, "box " + log + " --slots -1").exit, 2);
  EXPECT_NE(runCli(folder, "catches " + log + " --out /nowhere/catches.json").exit, 0);
  const auto dry = folder / "dry.finlog";
  ASSERT_TRUE(Log::open(dry));
  const auto ran = runCli(folder, "run " + dry.string());
  EXPECT_EQ(ran.exit, 2);
  EXPECT_NE(ran.err.find("no day on the water"), std::string::npos) << ran.err;
  EXPECT_EQ(runCli(folder, "catches " + dry.string()).exit, 0) << "nothing was caught, and that is said";
}

TEST(FilmCommand, MakesAFilmOfAPassThatItFollowsItself) {
  const test::TemporaryFolder folder;
  pull(folder, 220.0, 30.0, "Vinto 11");
  test::write(folder / "script.json",
              R"({"format":"agile-fin-film/1","width":640,"height":360,"slowness":2,"title":"A < B & \"C\"",
                  "passes":[{"pass":"pull-220.pass.json","caption":"Vinto"}]})");
  const auto ran = runCli(
      folder, "film " + (folder / "script.json").string() + " --out " + (folder / "film.mp4").string());
  ASSERT_EQ(ran.exit, 0) << ran.err;
  EXPECT_NE(ran.err.find("90 of the title"), std::string::npos) << ran.err;
  EXPECT_NE(ran.err.find("Vinto: filmed at"), std::string::npos) << ran.err;
  EXPECT_TRUE(ran.out.empty());
  const auto film = Clip::open(folder / "film.mp4");
  ASSERT_TRUE(film);
  EXPECT_EQ((*film)->info().width_px, 640);
}

TEST(FilmCommand, SaysWhatIsWrongAndLeavesNoFile) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mp4", {.frames = 30});
  const auto tried = [&](const std::string& script, const std::string& out) {
    test::write(folder / "script.json", script);
    return runCli(folder, "film " + (folder / "script.json").string() + " --out " + (folder / out).string());
  };
  const std::string head = R"({"format":"agile-fin-film/1",)";
  const auto odd = tried(head + R"("passes":[{"clip":"a.mp4","colour":"red"}]})", "film.mp4");
  EXPECT_EQ(odd.exit, 2);
  EXPECT_NE(odd.err.find("passes[0].colour"), std::string::npos) << odd.err;
  EXPECT_EQ(tried(head + R"("view":"far","passes":[{"clip":"a.mp4"}]})", "film.mp4").exit, 2);
  EXPECT_EQ(tried(head + R"("passes":[{"clip":"gone.mp4"}]})", "film.mp4").exit, 3);
  EXPECT_EQ(tried(head + R"("passes":[{"clip":"a.mp4"}]})", "film.gif").exit, 2);
  EXPECT_EQ(tried(head + R"("passes":[{"clip":"a.mp4"}]})", "no/such/film.mp4").exit, 2);
  EXPECT_EQ(runCli(folder, "film " + (folder / "none.json").string() + " --out x.mp4").exit, 2);
  for (const auto& entry : std::filesystem::directory_iterator(folder.path()))
    EXPECT_EQ(entry.path().filename().string().find("film."), std::string::npos) << entry.path();
}

TEST(FilmCommand, ThatIsInterruptedLeavesNothing) {
  const test::TemporaryFolder folder;
  test::film(folder / "a.mp4", {.frames = 60});
  test::write(folder / "script.json",
              R"({"format":"agile-fin-film/1","slowness":200,"passes":[{"clip":"a.mp4"}]})");
  const std::string command = "timeout --preserve-status -s INT 2 " FIN_CLI " film " +
                              (folder / "script.json").string() + " --out " + (folder / "film.mp4").string() +
                              " 2>" + (folder / "err").string();
  const int status = std::system(command.c_str());
  ASSERT_TRUE(WIFEXITED(status));
  EXPECT_EQ(WEXITSTATUS(status), 130);
  EXPECT_NE(slurp(folder / "err").find("nothing was left behind"), std::string::npos)
      << slurp(folder / "err");
  EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 3);
}

TEST(BallotCommand, CountsAVoteWithBallotsThatAreNotInTheLog) {
  const test::TemporaryFolder folder;
  const auto file = folder / "day.finlog";
  {
    const auto log = Log::open(file);
    ASSERT_TRUE(log);
    DayPlan plan;
    plan.rack.models = {
        {.id = 1, .name = "Vinto"}, {.id = 2, .name = "Mirk"}, {.id = 3, .name = "Ours", .graded = false}};
    plan.rack.rigs = {{.id = 4, .model = 1}, {.id = 5, .model = 2}, {.id = 6, .model = 3}};
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan));
    VerdictPlan verdict;
    verdict.vote = {"0a", "Which?", {"Mirk", "Ours", "Vinto"}, {{"x", {{2, 0, 1.0}, {1, 0, 1.0}}}}};
    ASSERT_TRUE((*log)->saveVerdict(VerdictPlan{}, verdict));
  }
  test::write(folder / "y.json", writeBallot("0a", {"y", {{0, 2, 0.0}}}));
  test::write(folder / "z.json", writeBallot("0b", {"z", {{0, 2, 0.0}}}));
  const auto ran = runCli(folder, "ballot " + file.string() + " " + (folder / "y.json").string() + " " +
                                      (folder / "z.json").string());
  ASSERT_EQ(ran.exit, 0) << ran.err;
  EXPECT_NE(ran.err.find("it belongs to another vote"), std::string::npos) << ran.err;
  const json count = json::parse(ran.out);
  EXPECT_EQ(count["format"], "agile-fin-vote/1");
  EXPECT_EQ(count["voters"], 2);
  EXPECT_EQ(count["rigs"].size(), 2U) << "what is shown and not graded is in no fit";
  EXPECT_EQ(count["rigs"][0]["rig"], "Vinto");
  EXPECT_TRUE(count["half_wins_added"]) << "it never lost";
  EXPECT_NEAR(count["pairs"][0]["chance_a"].get<double>(), 2.5 / 3.0, 1e-9);
  const auto empty = folder / "empty.finlog";
  ASSERT_TRUE(Log::open(empty));
  EXPECT_EQ(runCli(folder, "ballot " + empty.string()).exit, 2);
}

}  // namespace
}  // namespace fin
