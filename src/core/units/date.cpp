// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/date.h"

#include <charconv>
#include <chrono>
#include <cmath>
#include <cstdio>

namespace fin {
namespace {

using std::chrono::days;
using std::chrono::sys_days;
using std::chrono::year_month_day;

constexpr double kDay_s = 86400.0;

std::optional<int> digits(std::string_view text) {
  int out = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), out);
  if (error != std::errc() || end != text.data() + text.size() || out < 0) return std::nullopt;
  return out;
}

}  // namespace

std::string dateAt(double since1970_s) {
  const year_month_day date(sys_days(days(static_cast<int>(std::floor(since1970_s / kDay_s)))));
  char out[24];
  std::snprintf(out, sizeof out, "%04d-%02u-%02u", static_cast<int>(date.year()),
                static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()));
  return out;
}

std::optional<int> dayNumberOf(std::string_view date) {
  if (date.size() != 10 || date[4] != '-' || date[7] != '-') return std::nullopt;
  const auto year = digits(date.substr(0, 4)), month = digits(date.substr(5, 2)),
             day = digits(date.substr(8, 2));
  if (!year || !month || !day) return std::nullopt;
  const year_month_day out(std::chrono::year(*year), std::chrono::month(static_cast<unsigned>(*month)),
                           std::chrono::day(static_cast<unsigned>(*day)));
  if (!out.ok()) return std::nullopt;
  return static_cast<int>(sys_days(out).time_since_epoch().count());
}

}  // namespace fin
