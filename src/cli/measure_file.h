// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "core/measuring/session.h"
#include "core/units/job_control.h"

namespace fin::cli {

/// A pass file and what it gave.
struct MeasuredFile {
  PassRequest request;
  ClipFingerprint clip;
  PassResult result;
};

/// The text of a pass file or a script; "-" for standard input. BadRequest where it cannot be read.
Result<std::string> slurp(const std::string& name);
/// What a pass file ("-" for standard input) says. BadRequest as parsePassRequest.
Result<PassRequest> requestIn(const std::string& pass);
/// Follows and reads one pass. Errors of any step.
Result<MeasuredFile> measureRequest(PassRequest request, const MeasuringMeans& means = {},
                                    const JobControl& job = {});
/// Both.
Result<MeasuredFile> measureFile(const std::string& pass, const MeasuringMeans& means = {},
                                 const JobControl& job = {});

/// Writes a result where it was asked for, else to standard output.
Result<void> handOut(const std::optional<std::filesystem::path>& path, const std::string& text);

/// Writes a file whole or not at all, and a pipe or a device as it is. NotWritable with the name.
Result<void> spill(const std::filesystem::path& path, const std::string& text);

}  // namespace fin::cli
