// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <iostream>

#include "cli/commands.h"
#include "core/records/log_folder.h"
#include "core/records/log_merge.h"

namespace fin::cli {
namespace {

Exit tell(const Result<LogCounts>& done, const std::string& what) {
  if (!done) return complain(done.error());
  std::cerr << what;
  if (done->rows > 0) std::cerr << fmt::format(" {} rows in {} files.", done->rows, done->files);
  if (done->clips > 0) std::cerr << fmt::format(" {} clips.", done->clips);
  if (done->missingClips > 0) std::cerr << fmt::format(" {} clips are not there.", done->missingClips);
  std::cerr << "\n";
  return Exit::Done;
}

}  // namespace

Exit run(const LogCommand& command) {
  switch (command.act) {
    case LogCommand::Act::Export:
      return tell(exportLog(command.from, command.to, {.copyClips = command.clips}), "Exported:");
    case LogCommand::Act::Import:
      return tell(importLog(command.from, command.to), "Taken in:");
    case LogCommand::Act::Find:
      return tell(findClips(command.to, command.from), "Found:");
    case LogCommand::Act::Merge:
      break;
  }
  const auto done = mergeLogs(command.to, command.from);
  if (!done) return complain(done.error());
  std::cerr << fmt::format("Merged: {} rows came in, {} were the same. ", done->added, done->same)
            << fmt::format(
                   "Changed in both: {} are as the other log has them, {} as this one; the other version of "
                   "each is kept.\n",
                   done->overtaken, done->kept);
  return Exit::Done;
}

}  // namespace fin::cli
