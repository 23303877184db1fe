// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch_starts.h"

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr double kApart_s = 0.02;

auto nearest(std::vector<double>& starts, double to_s) {
  return std::min_element(starts.begin(), starts.end(),
                          [to_s](double a, double b) { return std::abs(a - to_s) < std::abs(b - to_s); });
}

}  // namespace

void TwitchStarts::add(double at_s) {
  const auto after = std::lower_bound(starts_s.begin(), starts_s.end(), at_s);
  if (after != starts_s.end() && *after - at_s < kApart_s) return;
  if (after != starts_s.begin() && at_s - *(after - 1) < kApart_s) return;
  starts_s.insert(after, at_s);
}

void TwitchStarts::remove(double near_s) {
  const auto start = nearest(starts_s, near_s);
  if (start == starts_s.end()) return;
  std::erase(leftOut_s, *start);
  starts_s.erase(start);
}

void TwitchStarts::move(double near_s, double to_s) {
  const auto start = nearest(starts_s, near_s);
  if (start == starts_s.end()) return;
  const double least = start == starts_s.begin() ? 0.0 : *(start - 1) + kApart_s;
  const double most = start + 1 == starts_s.end() ? std::max(to_s, least) : *(start + 1) - kApart_s;
  const double to = std::clamp(to_s, std::min(least, most), most);
  std::replace(leftOut_s.begin(), leftOut_s.end(), *start, to);
  *start = to;
}

void TwitchStarts::toggleExcluded(double near_s) {
  const auto start = nearest(starts_s, near_s);
  if (start == starts_s.end()) return;
  if (std::erase(leftOut_s, *start) == 0) leftOut_s.push_back(*start);
}

bool TwitchStarts::leavesOut(double start_s) const {
  return std::find(leftOut_s.begin(), leftOut_s.end(), start_s) != leftOut_s.end();
}

}  // namespace fin
