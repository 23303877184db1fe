// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/units/result.h"

namespace fin::cli {

/// The exit codes of the contract.
enum class Exit { Done = 0, BadRequest = 2, Unreadable = 3, Lost = 4, Interrupted = 130 };

Exit exitFor(const Error& error);

/// One pass file ("-" for standard input) in, readings out.
struct ReadCommand {
  std::string pass;
  std::optional<std::filesystem::path> out;
  std::optional<std::filesystem::path> track;
};
Exit run(const ReadCommand& command);

/// Many pass files: those below folders, and those that patterns name. Each one's readings and track go
/// beside it, or into one folder; what is there already and still true is not made again.
struct BatchCommand {
  std::vector<std::string> places;
  std::optional<std::filesystem::path> out;
  int jobs = 0;  ///< at a time; 0 for as many as there are cores
};
Exit run(const BatchCommand& command);

/// Several pulls of one rig at several speeds: where its action sets in, and where it fails.
struct LadderCommand {
  std::vector<std::string> passes;
  std::optional<std::filesystem::path> out;
};
Exit run(const LadderCommand& command);

/// Falls of one body on several heads: what the body weighs in the water, and how fast it falls on others.
struct WeightCommand {
  std::vector<std::string> passes;
  std::vector<double> heads_g;  ///< in water
  std::optional<std::filesystem::path> out;
};
Exit run(const WeightCommand& command);

/// The rigs of a log's day, reading by reading: which are told apart, and what would settle the rest.
struct CompareCommand {
  std::filesystem::path log;
  std::vector<std::string> days;      ///< dates or names; none for the newest test day
  std::vector<std::string> readings;  ///< by their words; none for all
  std::optional<std::filesystem::path> out;
};
Exit run(const CompareCommand& command);

/// Writes a pass file for every further way of the lure through the picture beside the one given.
struct SplitCommand {
  std::filesystem::path pass;
};
Exit run(const SplitCommand& command);

/// A whole log written as a folder, made of one, merged with another, or its moved clips found again.
struct LogCommand {
  enum class Act { Export, Import, Merge, Find };
  Act act = Act::Export;
  std::filesystem::path from;  ///< what is read
  std::filesystem::path to;    ///< what is written
  bool clips = false;          ///< copied into the folder
};
Exit run(const LogCommand& command);

/// What a log says of the water: what to tie on, how a day ran, what was caught, and the box.
struct WaterCommand {
  enum class What { TieOn, Run, Catches, Box };
  What what = What::TieOn;
  std::filesystem::path log;
  std::string day;          ///< date or name of a day on the water; empty for the newest
  int slots = 0;            ///< of the box; 0 for as few lures as cover
  double loss = 1.0;        ///< points that a lure may be under the best and still cover
  double hoursAhead = 6.0;  ///< for which spares are taken
  std::optional<std::filesystem::path> out;
};
Exit run(const WaterCommand& command);

/// A film of several clips in step, or of one, from a script (agile-fin-film/1; "-" for standard input).
struct FilmCommand {
  std::string script;
  std::filesystem::path out;
};
Exit run(const FilmCommand& command);

/// A day's vote as it was counted, with further ballots (agile-fin-ballot/1) that are not in the log.
struct BallotCommand {
  std::filesystem::path log;
  std::vector<std::string> ballots;
  std::string day;  ///< date or name; empty for the newest with a vote
  std::optional<std::filesystem::path> out;
};
Exit run(const BallotCommand& command);

/// Films the demo day in the rehearsal tank and writes its log.
struct RehearseCommand {
  std::filesystem::path folder;
  std::optional<std::filesystem::path> ship;  ///< where it is written as it comes with the program
};
Exit run(const RehearseCommand& command);

/// Says on standard error what went wrong; the exit code that goes with it.
Exit complain(const Error& error);

}  // namespace fin::cli
