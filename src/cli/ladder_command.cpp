// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/ladder_file.h"

namespace fin::cli {
namespace {

/// Passes of one rig, as rungs of one kind: pulls, or twitches where the first pass is one of those.
struct Rungs {
  std::vector<LadderRung> pulls;
  std::vector<CadenceRung> twitches;
  bool twitched = false;
};

/// Why a pass is left out; empty where it is not.
std::string take(const std::string& name, const MeasuredFile& measured, Rungs& rungs) {
  const ReadingSet& readings = measured.result.readings;
  if (rungs.twitched) {
    auto rung = cadenceRungOf(name, readings);
    if (!rung) return name + " has no time between twitches, or no climb, and is left out";
    rungs.twitches.push_back(std::move(*rung));
    return {};
  }
  auto rung = rungOf(name, readings, showsAction(measured.request.view, measured.request.marks));
  if (!rung) return name + " has no travel speed, or shows no action in its view, and is left out";
  rungs.pulls.push_back(std::move(*rung));
  return {};
}

}  // namespace

Exit run(const LadderCommand& command) {
  Rungs rungs;
  std::vector<std::string> warnings;
  std::string rig;
  bool first = true;
  for (const std::string& pass : command.passes) {
    const auto measured = measureFile(pass);
    if (!measured) return complain({measured.error().code, pass + ": " + measured.error().message, pass});
    const std::string name = std::filesystem::path(pass).filename().string();
    if (first) {
      rig = measured->request.rigName;
      rungs.twitched = measured->request.protocol == Protocol::Twitch;
    }
    first = false;
    if (measured->request.rigName != rig)
      warnings.push_back(
          fmt::format("{} is of another rig ({}) than the first ({})", name, measured->request.rigName, rig));
    if (std::string why = take(name, *measured, rungs); !why.empty()) warnings.push_back(std::move(why));
    fmt::print(stderr, "agile-fin-cli: {} read\n", name);
  }
  const std::string json = rungs.twitched ? writeCadence(evaluateCadence(std::move(rungs.twitches)), warnings)
                                          : writeLadder(evaluateLadder(std::move(rungs.pulls)), warnings);
  for (const std::string& w : warnings) fmt::print(stderr, "agile-fin-cli: {}\n", w);
  if (auto ok = handOut(command.out, json); !ok) return complain(ok.error());
  return Exit::Done;
}

}  // namespace fin::cli
