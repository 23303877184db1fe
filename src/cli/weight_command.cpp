// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/weight_file.h"

namespace fin::cli {

Exit run(const WeightCommand& command) {
  std::vector<HeadFall> falls;
  std::vector<std::string> warnings;
  for (const std::string& pass : command.passes) {
    const auto measured = measureFile(pass);
    if (!measured) return complain({measured.error().code, pass + ": " + measured.error().message, pass});
    const std::string name = std::filesystem::path(pass).filename().string();
    if (!measured->request.head)
      return complain({ErrorCode::BadRequest,
                       pass + ": rig.head_in_water_g: say what its head weighs in the water", "rig"});
    auto fall = headFallOf(name, measured->request.head->inWater_g, measured->result.readings);
    if (fall) {
      falls.push_back(std::move(*fall));
    } else {
      warnings.push_back(fall.error().message + "; it is left out");
    }
    fmt::print(stderr, "agile-fin-cli: {} read\n", name);
  }
  for (const std::string& w : warnings) fmt::print(stderr, "agile-fin-cli: {}\n", w);
  if (auto ok = handOut(command.out, writeHeads(falls, command.heads_g, warnings)); !ok)
    return complain(ok.error());
  return Exit::Done;
}

}  // namespace fin::cli
