// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

#include "core/comparison/wishes.h"
#include "core/units/result.h"

namespace fin::records {

std::string toJson(const VerdictPlan& plan);
/// Keys that are missing have their defaults; Unreadable for what is no such document.
Result<VerdictPlan> verdictFrom(const std::string& text);

}  // namespace fin::records
