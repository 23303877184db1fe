// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <string>
#include <string_view>

#include "core/units/result.h"

namespace fin {

/// Writes a file whole or not at all: beside its place first, on the disk, then into its place; what stood
/// there before stays until then, and nothing is left lying about. A folder, a pipe or a device in its place
/// is not written to. Errors: NotWritable with the file's name and the reason.
Result<void> writeWhole(const std::filesystem::path& file, std::string_view content);

/// ".part", and what no other piece of work has: one that was just stopped may still be clearing up after
/// itself.
std::string partMark();

}  // namespace fin
