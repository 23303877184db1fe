// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <string>

#include "core/measuring/pass_request.h"

namespace fin {

/// Reads `agile-fin-pass/1`. Strict: an unknown key, a number that is not finite, or anything after the JSON
/// is an error that names it. `folder` is what a relative clip is relative to.
Result<PassRequest> parsePassRequest(const std::string& json, const std::filesystem::path& folder,
                                     Stage stage = Stage::Whole);

/// The same as JSON, its clip relative to `folder` where it lies below it.
std::string writePassRequest(const PassRequest& request, const std::filesystem::path& folder);

}  // namespace fin
