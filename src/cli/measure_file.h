// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "core/passes/measure.h"
#include "core/units/job_control.h"

namespace fin::cli {

struct Measured {
  PassRequest request;
  PassResult result;
};

/// What one of several passes at once may take.
struct Share {
  int threads = 0;  ///< that decode; 0 for as many as there are cores
  std::size_t keptBytes = roomForFrames_bytes();
};

/// Follows and reads one pass file ("-" for standard input). Errors of any step.
Result<Measured> measureFile(const std::string& pass, const Share& share = {}, const JobControl& job = {});

/// Writes a result where it was asked for, else to standard output.
Result<void> handOut(const std::optional<std::filesystem::path>& path, const std::string& text);

/// Writes a file whole or not at all.
Result<void> spill(const std::filesystem::path& path, const std::string& text);

}  // namespace fin::cli
