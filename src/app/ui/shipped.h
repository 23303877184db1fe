// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <filesystem>

namespace fin::app {

/// A folder that comes with the program, where it was installed or built. Not there where it was not found.
std::filesystem::path shipped(const QString& folder);

}  // namespace fin::app
