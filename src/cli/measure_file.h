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

/// Follows and reads one pass file ("-" for standard input). `threads` decode; 0 for as many as there are
/// cores. Errors of any step; Lost where no reading stands because the lure was lost right away.
Result<Measured> measureFile(const std::string& pass, int threads = 0, const JobControl& job = {});

/// Writes a result where it was asked for, else to standard output.
Result<void> handOut(const std::optional<std::filesystem::path>& path, const std::string& text);

/// Writes a file whole or not at all.
Result<void> spill(const std::filesystem::path& path, const std::string& text);

}  // namespace fin::cli
