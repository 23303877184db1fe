// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <string>

namespace fin::app {

/// A kind of row of the log, as a person says it: "Planned pass".
QString rowKind(const std::string& kind);

}  // namespace fin::app
