// SPDX-License-Identifier: GPL-3.0-or-later
#include <CLI/CLI.hpp>

#include "cli/commands.h"

int main(int argc, char** argv) {
  CLI::App app{"Agile Fin measures lures from footage, without a window."};
  app.require_subcommand(1);
  app.set_version_flag("--version", FIN_VERSION);

  fin::cli::ReadCommand read;
  std::string out;
  std::string track;
  CLI::App* readApp = app.add_subcommand("read", "follow the marks through one clip and write its readings");
  readApp->add_option("pass", read.pass, "pass file (agile-fin-pass/1), or - for standard input")->required();
  readApp->add_option("--out", out, "write the readings here instead of to standard output");
  readApp->add_option("--track", track, "write the track here as CSV");

  fin::cli::BatchCommand batch;
  std::string batchOut;
  CLI::App* batchApp = app.add_subcommand(
      "batch", "read many pass files at once; may be stopped, and goes on where it was when called again");
  batchApp->add_option("places", batch.places, "folders (with all below), files or patterns")->required();
  batchApp->add_option("--out", batchOut, "folder for the readings and tracks, instead of beside each pass");
  batchApp->add_option("--jobs", batch.jobs, "passes at a time, instead of one for each core");

  fin::cli::LadderCommand ladder;
  std::string ladderOut;
  CLI::App* ladderApp = app.add_subcommand("ladder",
                                           "read pulls of one rig at several speeds, or its twitches at "
                                           "several intervals: its limits and the curve");
  ladderApp->add_option("passes", ladder.passes, "pass files (agile-fin-pass/1)")->required();
  ladderApp->add_option("--out", ladderOut, "write the readings here instead of to standard output");

  fin::cli::WeightCommand weight;
  std::string weightOut;
  CLI::App* weightApp = app.add_subcommand(
      "weight",
      "read falls of one body on several heads: its weight in the water, and how it falls on others");
  weightApp->add_option("passes", weight.passes, "pass files of falls, with rig.head_in_water_g")->required();
  weightApp->add_option("--head", weight.heads_g, "a further head, g in water; may be given several times");
  weightApp->add_option("--out", weightOut, "write the readings here instead of to standard output");

  fin::cli::CompareCommand compare;
  std::string compareOut;
  CLI::App* compareApp = app.add_subcommand(
      "compare", "compare the rigs of a day's log: which are told apart, and what would settle the rest");
  compareApp->add_option("log", compare.log, "log of a day (.finlog)")->required();
  compareApp->add_option("--reading", compare.readings,
                         "only this reading, by its word in files; may be given several times");
  compareApp->add_option(
      "--day", compare.days,
      "this day, by its date (yyyy-mm-dd) or name, instead of the newest test day; several are "
      "compared together");
  compareApp->add_option("--out", compareOut, "write the comparison here instead of to standard output");

  fin::cli::SplitCommand split;
  CLI::App* splitApp = app.add_subcommand(
      "split", "where the lure crosses the picture again, write a pass file for each further way");
  splitApp->add_option("pass", split.pass, "pass file (agile-fin-pass/1)")->required();

  using fin::cli::LogCommand;
  LogCommand log;
  CLI::App* logApp = app.add_subcommand("log", "export a whole log, make one of an export, merge two");
  logApp->require_subcommand(1);
  const auto logAct = [&](LogCommand::Act act, const char* name, const char* help, const char* from,
                          const char* to, bool fromFirst) {
    CLI::App* one = logApp->add_subcommand(name, help);
    const auto addFrom = [&] { one->add_option(from, log.from)->required(); };
    if (fromFirst) addFrom();
    one->add_option(to, log.to)->required();
    if (!fromFirst) addFrom();
    one->callback([&log, act] { log.act = act; });
    return one;
  };
  logAct(LogCommand::Act::Export, "export", "write a log as a folder of JSON and CSV (agile-fin-log/1)",
         "log", "folder", true)
      ->add_flag("--clips", log.clips, "copy its clips into the folder as well");
  logAct(LogCommand::Act::Import, "import", "make a new log of such a folder", "folder", "log", true);
  logAct(LogCommand::Act::Merge, "merge", "bring another log, or an export, into a log", "other", "log",
         false);
  logAct(LogCommand::Act::Find, "find", "look below a folder for clips that were moved", "folder", "log",
         false);

  using fin::cli::WaterCommand;
  WaterCommand water;
  std::string waterOut;
  const auto waterAct = [&](WaterCommand::What what, const char* name, const char* help) {
    CLI::App* one = app.add_subcommand(name, help);
    one->add_option("log", water.log, "log (.finlog)")->required();
    one->add_option("--out", waterOut, "write the result here instead of to standard output");
    one->callback([&water, what] { water.what = what; });
    return one;
  };
  CLI::App* tieOnApp =
      waterAct(WaterCommand::What::TieOn, "tie-on", "which rigs the noted water speaks for, and why");
  CLI::App* runApp = waterAct(WaterCommand::What::Run, "run", "how a day on the water ran, rod by rod");
  for (CLI::App* one : {tieOnApp, runApp})
    one->add_option("--day", water.day, "this day, by its date (yyyy-mm-dd) or name, instead of the newest");
  CLI::App* catchesApp = waterAct(WaterCommand::What::Catches, "catches",
                                  "what was caught on which rig, and whether the tank was right");
  CLI::App* boxApp = waterAct(WaterCommand::What::Box, "box",
                              "the fewest lures for all purposes, what to buy first, spares");
  boxApp->add_option("--slots", water.slots, "only so many lures go in")->check(CLI::NonNegativeNumber);
  boxApp->add_option("--loss", water.loss, "points that a lure may be under the best and still do")
      ->check(CLI::NonNegativeNumber);
  boxApp->add_option("--hours", water.hoursAhead, "rod-hours ahead, for the spares")
      ->check(CLI::NonNegativeNumber);

  fin::cli::FilmCommand film;
  CLI::App* filmApp =
      app.add_subcommand("film", "make a film of two to six clips in step, or of one with its readings");
  filmApp->add_option("script", film.script, "film script (agile-fin-film/1), or - for standard input")
      ->required();
  filmApp->add_option("--out", film.out, "the film: .mp4 or .webm")->required();

  fin::cli::BallotCommand ballot;
  std::string ballotOut;
  CLI::App* ballotApp =
      app.add_subcommand("ballot", "count a day's vote, with ballots that are not in the log yet");
  ballotApp->add_option("log", ballot.log, "log (.finlog)")->required();
  ballotApp->add_option("ballots", ballot.ballots, "further ballots (agile-fin-ballot/1)");
  ballotApp->add_option("--day", ballot.day,
                        "this day, by its date (yyyy-mm-dd) or name, instead of the newest with a vote");
  ballotApp->add_option("--out", ballotOut, "write the count here instead of to standard output");

  fin::cli::RehearseCommand rehearse;
  CLI::App* rehearseApp =
      app.add_subcommand("rehearse", "film the demo day in the rehearsal tank, with its log");
  rehearseApp->add_option("folder", rehearse.folder, "where its clips and its log go")->required();
  std::filesystem::path ship;
  rehearseApp->add_option("--ship", ship, "write it here too, as it comes with the program");

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    return app.exit(e) == 0 ? 0 : static_cast<int>(fin::cli::Exit::BadRequest);
  }
  if (!out.empty()) read.out = out;
  if (!track.empty()) read.track = track;
  if (!batchOut.empty()) batch.out = batchOut;
  if (!ship.empty()) rehearse.ship = ship;
  if (!ladderOut.empty()) ladder.out = ladderOut;
  if (*ladderApp) return static_cast<int>(fin::cli::run(ladder));
  if (!weightOut.empty()) weight.out = weightOut;
  if (*weightApp) return static_cast<int>(fin::cli::run(weight));
  if (!compareOut.empty()) compare.out = compareOut;
  if (*compareApp) return static_cast<int>(fin::cli::run(compare));
  if (!waterOut.empty()) water.out = waterOut;
  if (*tieOnApp || *runApp || *catchesApp || *boxApp) return static_cast<int>(fin::cli::run(water));
  if (!ballotOut.empty()) ballot.out = ballotOut;
  if (*ballotApp) return static_cast<int>(fin::cli::run(ballot));
  if (*filmApp) return static_cast<int>(fin::cli::run(film));
  if (*logApp) return static_cast<int>(fin::cli::run(log));
  if (*splitApp) return static_cast<int>(fin::cli::run(split));
  if (*batchApp) return static_cast<int>(fin::cli::run(batch));
  return static_cast<int>(*rehearseApp ? fin::cli::run(rehearse) : fin::cli::run(read));
}
