// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "cli/commands.h"
#include "demo/demo_day.h"
#include "demo/shipped_demo.h"

namespace fin::cli {

Exit run(const RehearseCommand& command) {
  int tenths = -1;
  JobControl job;
  job.progress = [&tenths](double share) {
    const int now = static_cast<int>(share * 10.0);
    if (now > tenths) fmt::print(stderr, "agile-fin-cli: {} % filmed\n", 10 * now);
    tenths = now;
  };
  const auto log = makeDemoDay(command.folder, job);
  if (!log) return complain(log.error());
  if (command.ship) {
    if (const auto shipped = shipDemo(*log, *command.ship); !shipped) return complain(shipped.error());
  }
  fmt::print("{}\n", log->string());
  return Exit::Done;
}

}  // namespace fin::cli
