// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/result_files.h"

namespace fin::cli {
Exit complain(const Error& error) {
  fmt::print(stderr, "agile-fin-cli: {}\n", error.message);
  return exitFor(error);
}

Exit exitFor(const Error& error) {
  switch (error.code) {
    case ErrorCode::Unreadable:
    case ErrorCode::Damaged:
      return Exit::Unreadable;
    case ErrorCode::Lost:
      return Exit::Lost;
    default:
      return Exit::BadRequest;
  }
}

Exit run(const ReadCommand& command) {
  const auto measured = measureFile(command.pass);
  if (!measured) return complain(measured.error());
  if (command.track) {
    if (auto ok = spill(*command.track, writeTrack(measured->result)); !ok) return complain(ok.error());
  }
  if (lureLost(measured->request, measured->result)) {
    return complain({ErrorCode::Lost, "the lure was lost right after its marks; no reading stands", ""});
  }
  const std::string json = writeReadings(measured->request, measured->result, measured->clip);
  for (const std::string& w : measured->result.warnings) fmt::print(stderr, "agile-fin-cli: {}\n", w);
  if (auto ok = handOut(command.out, json); !ok) return complain(ok.error());
  return Exit::Done;
}

}  // namespace fin::cli
