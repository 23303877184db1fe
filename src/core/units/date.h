// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace fin {

/// "2027-05-02", of an instant in seconds since 1970 (UTC).
std::string dateAt(double since1970_s);
/// Days since 1970; none for what is no day of the calendar, as yyyy-mm-dd.
std::optional<int> dayNumberOf(std::string_view date);

}  // namespace fin
