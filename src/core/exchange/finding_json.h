// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

#include "core/measuring/finding.h"
#include "core/units/result.h"

namespace fin::records {

/// As the log keeps it. Errors: Unreadable.
std::string toJson(const Finding& finding);
Result<Finding> findingFrom(const std::string& text);

}  // namespace fin::records
