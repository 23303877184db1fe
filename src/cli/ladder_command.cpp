// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/ladder_file.h"

namespace fin::cli {

Exit run(const LadderCommand& command) {
  std::vector<LadderRung> rungs;
  std::vector<std::string> warnings;
  std::string rig;
  for (const std::string& pass : command.passes) {
    const auto measured = measureFile(pass);
    if (!measured) return complain({measured.error().code, pass + ": " + measured.error().message, pass});
    const std::string name = std::filesystem::path(pass).filename().string();
    if (rungs.empty() && rig.empty()) rig = measured->request.rigName;
    if (measured->request.rigName != rig)
      warnings.push_back(
          fmt::format("{} is of another rig ({}) than the first ({})", name, measured->request.rigName, rig));
    auto rung =
        rungOf(name, measured->result.readings, showsAction(measured->request.view, measured->request.marks));
    if (rung) {
      rungs.push_back(std::move(*rung));
    } else {
      warnings.push_back(name + " has no travel speed, or shows no action in its view, and is left out");
    }
    fmt::print(stderr, "agile-fin-cli: {} read\n", name);
  }
  const std::string json = writeLadder(evaluateLadder(std::move(rungs)), warnings);
  for (const std::string& w : warnings) fmt::print(stderr, "agile-fin-cli: {}\n", w);
  if (auto ok = handOut(command.out, json); !ok) return complain(ok.error());
  return Exit::Done;
}

}  // namespace fin::cli
