// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/weight_file.h"

namespace fin::cli {

Exit run(const WeightCommand& command) {
  // What is said wrongly is told before anything is followed.
  std::vector<PassRequest> requests;
  for (const std::string& pass : command.passes) {
    auto request = requestIn(pass);
    if (!request) return complain({request.error().code, pass + ": " + request.error().message, pass});
    if (!request->head)
      return complain({ErrorCode::BadRequest,
                       pass + ": rig.head_in_water_g: say what its head weighs in the water", "rig"});
    requests.push_back(std::move(*request));
  }
  std::vector<HeadFall> falls;
  std::vector<std::string> warnings;
  for (std::size_t i = 0; i < requests.size(); ++i) {
    const std::string& pass = command.passes[i];
    const auto measured = measureRequest(requests[i]);
    if (!measured) return complain({measured.error().code, pass + ": " + measured.error().message, pass});
    const std::string name = std::filesystem::path(pass).filename().string();
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
