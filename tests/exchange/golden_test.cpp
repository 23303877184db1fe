// SPDX-License-Identifier: GPL-3.0-or-later
// Every format that leaves the program, letter by letter: what others read must not change unawares. With
// FIN_WRITE_GOLDEN set the files are written instead; then look at what changed, and tell it in the
// changelog.
#include <gtest/gtest.h>

#include <cmath>
#include <cstdlib>
#include <fstream>

#include "core/exchange/ballot_json.h"
#include "core/exchange/comparison_file.h"
#include "core/exchange/film_json.h"
#include "core/exchange/ladder_file.h"
#include "core/exchange/pass_json.h"
#include "core/exchange/passes_file.h"
#include "core/exchange/plan_json.h"
#include "core/exchange/rack_csv.h"
#include "core/exchange/result_files.h"
#include "core/exchange/verdict_json.h"
#include "core/exchange/weight_file.h"
#include "support/reading_words.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

std::string contentOf(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

void expectGolden(const char* name, const std::string& text) {
  const fs::path file = fs::path(FIN_GOLDEN_FILES) / name;
  if (std::getenv("FIN_WRITE_GOLDEN") != nullptr) std::ofstream(file, std::ios::binary) << text;
  ASSERT_TRUE(fs::exists(file)) << file;
  EXPECT_EQ(text, contentOf(file)) << name;
}

/// A value in every place.
PassRequest wholeRequest() {
  PassRequest r;
  r.clip = "/day/clips/pull.mp4";
  r.protocol = Protocol::Twitch;
  r.view = View::Chase;
  r.captureRate = Hertz(180.5);
  r.byField = true;
  r.pull = Pull::Left;
  r.scale = ScaleMark{{102.25, 655.5}, {902.75, 655.5}, Millimetres(500.0), Millimetres(1.5)};
  r.scalePlane = ScalePlane{Millimetres(1500.0), Millimetres(1620.0)};
  r.plumb = PixelLine{{640.0, 20.0}, {655.0, 700.0}};
  r.waterline = PixelLine{{0.0, 44.0}, {1279.0, 45.0}};
  r.bottom = PixelLine{{0.0, 700.0}, {1279.0, 702.0}};
  r.lens = Lens{900.0, 901.0, 640.0, 360.0, {-0.2, 0.05, 0.001, 0.002, 0.003}};
  r.marks = {{MarkName::Nose, 3, {212.4, 340.1}}, {MarkName::Tail, 3, {150.2, 338.9}}};
  r.outline = OutlineSeed{3, {{140.0, 330.0}, {220.0, 330.0}, {220.0, 352.0}}};
  r.hidden = {{0, 40, {{10.0, 10.0}, {90.0, 10.0}, {90.0, 60.0}}}};
  r.fouled = {{{120, 150}, "a leaf"}};
  r.bodyHalfHeight = Millimetres(9.0);
  r.followBackground = true;
  r.firstFrame = 3;
  r.lastFrame = 300;
  r.ownLength = OwnLength{Millimetres(88.5), Millimetres(0.75)};
  r.seenFrom = SeenFrom::Behind;
  r.viewAngle = StatedAngle{22.0, 3.5};
  r.pullLine = PixelLine{{10.0, 350.0}, {1270.0, 348.0}};
  r.thresholds = {0.5, 40.0, 15.0};
  r.head = RigHead{1.5};
  r.quiet = QuietStretch{Seconds(0.25), Seconds(0.5)};
  r.twitches = TwitchStarts{{0.41, 1.52}, {1.52}};
  r.rigName = "Vinto 11, 7 g head";
  r.rigNote = "a note";
  return r;
}

ReadingSet someReadings() {
  return {{{ReadingId::TravelSpeed, 270.625, "mm/s", 2.5, 100.0, Grade::Fair, {"a note", "another"}},
           {ReadingId::PauseClass, std::string("hangs"), "text", std::nullopt, 3.0, Grade::Good, {}}},
          {{ReadingId::RunningDepth, "no waterline is marked"}}};
}

std::vector<ComparedPass> somePasses() {
  ComparedPass pass{7, "Pull one", "=Vinto 11, 7 g head", 3, Protocol::Retrieve, true, someReadings()};
  pass.control = true;
  pass.from = Provenance{"/day/clips/pull.mp4", {1234, "abcd"}, 3, {100, 96, 2}, 9, 1.75e9};
  return {pass};
}

Model someModel() {
  Model m;
  m.id = 1;
  m.name = "Vinto 11";
  m.family = Family::SoftPlastic;
  m.length_mm = 110.5;
  m.weight_g = 9.5;
  m.price = 4.25;
  m.currency = "EUR";
  m.graded = false;
  m.whyNotGraded = "ours";
  return m;
}

Rig someRig() {
  Rig r;
  r.id = 2;
  r.model = 1;
  r.name = "7 g head";
  r.head_g = 7.0;
  r.insertPlace = InsertPlace::High;
  r.line = "braid";
  r.lineStrength_kg = 6.0;
  return r;
}

TEST(Golden, PassRequest) {
  PassRequest square = wholeRequest();
  square.scale.reset();
  square.square = SquareMark{{{{410.25, 220.5}, {702.75, 214.0}, {706.25, 409.5}, {412.5, 415.0}}},
                             Millimetres(300.0),
                             Millimetres(200.0),
                             Millimetres(0.5)};
  expectGolden("pass.json", writePassRequest(wholeRequest(), "/day"));
  expectGolden("pass-square.json", writePassRequest(square, "/elsewhere"));
}

TEST(Golden, ReadingsAndTrack) {
  PassResult result;
  result.track = {3, 3, {{MarkName::Nose, {{true, {212.4, 340.1}, 1.0}, {}, {true, {228.4, 340.6}, 0.75}}}}};
  result.track.outline = {{true, true, 120.5, {40.25, 30.5}, 0.25, 30.0, 8.0, 96.5, {}}, {}, {}};
  result.time_s = {0.025, 0.033333, 0.041667};
  result.timeBasis = "capture_rate";
  result.readings = someReadings();
  result.warnings = {"a warning"};
  expectGolden("pass.readings.json", writeReadings(wholeRequest(), result, {1234, "abcd"}));
  expectGolden("pass.track.csv", writeTrack(result));
}

TEST(Golden, LadderAndPasses) {
  std::vector<LadderRung> rungs;
  for (const auto& [speed, action] : {std::pair(80.0, 1.0), {160.0, 12.0}, {320.0, 30.0}})
    rungs.push_back({"rung", speed, 2.0, action, 0.5, 4.0, 0.0, 3.0});
  expectGolden("ladder.readings.json", writeLadder(evaluateLadder(rungs), {"a warning"}));
  std::vector<HeadFall> falls;
  for (const auto& [head, rate] : {std::pair(2.0, 150.0), {5.0, 200.0}})
    falls.push_back({.name = "fall.pass.json",
                     .head_g = head,
                     .rate_mm_s = rate,
                     .rateU95_mm_s = 0.015 * rate,
                     .mode = "plumb"});
  expectGolden("heads.readings.json", writeHeads(falls, {10.0, -3.0}, {"a warning"}));
  Entry entry{.rig = "Vinto 11, 7 g head", .model = "Vinto 11", .graded = false};
  entry.whyNotGraded = "ours";
  entry.price = 4.25;
  entry.currency = "EUR";
  expectGolden("day.passes.json", writePasses("A day", {entry}, somePasses()));
  ReadingRows rows = rowsOf(somePasses());
  expectGolden("day.readings.csv", writeCsv({',', std::move(rows.heads), std::move(rows.rows)}));
}

TEST(Golden, Comparison) {
  Spread spread;
  spread.scaling = Scaling::Ratio;
  spread.adjusted.blocks = true;
  spread.rigs = {{"Vinto 11", 3, 200.0, 196.0, 204.0, 0.5, "a", 1, 2, true, false},
                 {"Hasp 14", 3, 180.0, 176.0, 184.0, 0.5, "a", 1, 2, true, true}};
  spread.pairs = {{0, 1, 0.125, -0.0625, 0.25, 0.0625, false, 0.25, true, 3}};
  Spread none;
  none.whyNoPairs = "nobody read it";
  expectGolden("day.comparison.json",
               writeComparison({{ReadingId::FallRate,
                                 260.0,
                                 spread,
                                 0.3,
                                 {{"near", "far", {8, true, 0.001, -0.034, 0.037, 0.974, 7}}}},
                                {ReadingId::RiseRate, {}, none}},
                               {"an old pass"}));
}

TEST(Golden, RackAndDocumentsOfALog) {
  expectGolden("rack.csv", writeCsv(exportRack({{someModel()}, {someRig()}})));
  expectGolden("model.json", records::toJson(someModel()));
  expectGolden("rig.json", records::toJson(someRig()));
  PlannedPass planned{.id = 3, .rig = 2, .protocol = Protocol::Hop, .view = View::Side};
  planned.state = PassState::Fouled;
  planned.whyFouled = "a leaf";
  expectGolden("planned-pass.json", records::toJson(planned));
  DayPlan day;
  day.name = "A day at the trough";
  day.questions = {"fall"};
  expectGolden("day.json", records::dayToJson(day));
  const RunEvent fish{.id = 9, .at_s = 1.8e9, .kind = RunEventKind::Caught, .rod = 2, .rig = 2};
  expectGolden("run-event.json", records::toJson(fish));
  const TieRule rule{8, "3", "clarity < 1", "rattle_level + x2", "felt before seen"};
  expectGolden("tie-rule.json", records::toJson(rule));
  VerdictPlan verdict;
  verdict.wishes = {{ReadingId::WobbleAngle, Direction::Target, 20.0, 0.5}};
  expectGolden("verdict.json", records::toJson(verdict));
}

/// A value in every place.
FilmScript wholeFilm() {
  FilmScript out{.title = "Which springs back?",
                 .end = {"Not every model was tested."},
                 .slowness = 4.0,
                 .rate_Hz = 25.0,
                 .width_px = 1280,
                 .height_px = 720,
                 .view = FilmView::OneSize,
                 .inches = true,
                 .bare = true};
  out.passes = {{.clip = "/day/clips/pull.mp4",
                 .captureRate = Hertz(180.5),
                 .byField = true,
                 .instant_s = 0.5,
                 .from_s = 0.25,
                 .to_s = 2.75,
                 .caption = "Skrell \"95\" <hooks>",
                 .note = "shown, not graded",
                 .lure = {{3, {212.5, 340.125}}, {4, {214.0, 340.0}}},
                 .length_px = 62.5,
                 .mmPerPixel = 0.625,
                 .quietFrom_s = 0.0,
                 .quietTo_s = 0.5,
                 .trace = FilmTrace{"Depth, mm", {0.25, 0.5}, {0.0, 12.5}, true},
                 .readings = {{1.5, "Fall rate", "128.1 ± 0.8 mm/s"}}},
                {.passFile = "/day/glide.pass.json"}};
  return out;
}

TEST(Golden, Film) {
  const std::string text = writeFilm(wholeFilm(), "/day");
  expectGolden("film.json", text);
  const auto read = parseFilm(text, "/day");
  ASSERT_TRUE(read) << read.error().message;
  EXPECT_EQ(*read, wholeFilm());
}

TEST(Golden, Ballot) {
  expectGolden("ballot.json",
               writeBallot("00f3a9c1d2e4b567", {"5e2f", {{0, 2, 1.0}, {2, 1, 0.0}, {1, 0, 0.5}}}));
}

TEST(Golden, VoteCounted) {
  Vote vote{.id = "00f3a9c1d2e4b567",
            .asked = "Which looks more alive?",
            .rigs = {"Vinto 11", "Mirk", "Skrell 95"}};
  vote.ballots = {{"a", {{0, 1, 1.0}, {1, 2, 0.0}, {2, 0, 0.5}}},
                  {"b", {{0, 1, 0.0}, {1, 2, 0.5}, {2, 0, 1.0}, {0, 2, 0.0}}}};
  // To six figures: the last ones differ from processor to processor.
  VoteCount count = countVote(vote);
  const auto rounded = [](double& x) { x = std::round(1e6 * x) / 1e6; };
  for (Preferred& rig : count.rigs) rounded(rig.strength), rounded(rig.se);
  for (PreferredPair& pair : count.pairs) rounded(pair.p), rounded(pair.low), rounded(pair.high);
  ReadingAndVote too{.reading = ReadingId::WobbleFrequency, .rigs = 3, .tooFew = "too few to tell"};
  ReadingAndVote told{.reading = ReadingId::FallRate, .rigs = 6, .agreement = {0.75, 0.05}, .p = 0.1};
  expectGolden("vote.json", writeVoteCount(vote, count, {too, told}));
}

}  // namespace
}  // namespace fin
