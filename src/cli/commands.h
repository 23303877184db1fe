// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "core/units/result.h"

namespace fin::cli {

/// The exit codes of the contract.
enum class Exit { Done = 0, BadRequest = 2, Unreadable = 3, Lost = 4 };

Exit exitFor(const Error& error);

/// One pass file ("-" for standard input) in, readings out.
struct ReadCommand {
  std::string pass;
  std::optional<std::filesystem::path> out;
  std::optional<std::filesystem::path> track;
};
Exit run(const ReadCommand& command);

/// Films the demo day in the rehearsal tank and writes its log.
struct RehearseCommand {
  std::filesystem::path folder;
};
Exit run(const RehearseCommand& command);

/// Says on standard error what went wrong; the exit code that goes with it.
Exit complain(const Error& error);

}  // namespace fin::cli
