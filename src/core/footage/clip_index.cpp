// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_index.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <limits>

namespace fin {
namespace {

std::vector<std::int64_t> spacings(const std::vector<std::int64_t>& pts) {
  std::vector<std::int64_t> out;
  for (std::size_t i = 1; i < pts.size(); ++i) out.push_back(pts[i] - pts[i - 1]);
  return out;
}

std::int64_t medianOf(std::vector<std::int64_t> values) {
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

}  // namespace

ClipIndex::ClipIndex(std::vector<Packet> packets, double tick_s) : tick_s_(tick_s) {
  for (const Packet& p : packets) {
    if (p.key) keys_.push_back(p);
  }
  std::sort(keys_.begin(), keys_.end(), [](const Packet& a, const Packet& b) { return a.pts < b.pts; });
  for (const Packet& p : packets) {
    // What is shown before the first key frame has nothing to be decoded from.
    const bool reachable = keys_.empty() || p.pts >= keys_.front().pts;
    if (!p.hidden && reachable) pts_.push_back(p.pts);
  }
  std::sort(pts_.begin(), pts_.end());
  pts_.erase(std::unique(pts_.begin(), pts_.end()), pts_.end());
}

Seconds ClipIndex::timeOf(std::size_t frame) const {
  return Seconds(static_cast<double>(pts_[frame] - pts_.front()) * tick_s_);
}

std::optional<std::size_t> ClipIndex::frameAt(std::int64_t pts) const {
  const auto after = std::lower_bound(pts_.begin(), pts_.end(), pts);
  if (after != pts_.end() && *after == pts) return static_cast<std::size_t>(after - pts_.begin());
  auto nearest = after;
  if (after == pts_.end() || (after != pts_.begin() && pts - *(after - 1) < *after - pts))
    nearest = after - 1;
  if (pts_.empty() || nearest < pts_.begin()) return std::nullopt;
  const auto i = static_cast<std::size_t>(nearest - pts_.begin());
  std::int64_t spacing = std::numeric_limits<std::int64_t>::max();
  if (i > 0) spacing = pts_[i] - pts_[i - 1];
  if (i + 1 < pts_.size()) spacing = std::min(spacing, pts_[i + 1] - pts_[i]);
  if (pts_.size() == 1) spacing = 0;
  if (3 * std::llabs(pts - *nearest) > spacing) return std::nullopt;
  return i;
}

std::size_t ClipIndex::frameShownAt(Seconds time) const {
  if (pts_.empty()) return 0;
  const auto pts = pts_.front() + static_cast<std::int64_t>(std::floor(time.value() / tick_s_ + 1e-6));
  const auto after = std::upper_bound(pts_.begin(), pts_.end(), pts);
  return after == pts_.begin() ? 0 : static_cast<std::size_t>(after - pts_.begin()) - 1;
}

std::vector<ClipIndex::Packet> ClipIndex::keysBefore(std::size_t frame) const {
  const auto end = keys_.begin() + static_cast<std::ptrdiff_t>(groupOf(frame));
  return {std::make_reverse_iterator(end), keys_.rend()};
}

std::size_t ClipIndex::groupOf(std::size_t frame) const {
  const auto after = std::upper_bound(keys_.begin(), keys_.end(), pts_[frame],
                                      [](std::int64_t pts, const Packet& key) { return pts < key.pts; });
  return static_cast<std::size_t>(after - keys_.begin());
}

Hertz ClipIndex::regularRate() const {
  if (pts_.size() < 2) return Hertz(0.0);
  const std::vector<std::int64_t> gaps = spacings(pts_);
  const auto median = static_cast<double>(medianOf(gaps));
  double sum = 0.0;
  double count = 0.0;
  for (std::int64_t gap : gaps) {
    if (std::abs(static_cast<double>(gap) - median) > 0.5 * median) continue;
    sum += static_cast<double>(gap);
    count += 1.0;
  }
  return Hertz(count / (sum * tick_s_));
}

bool ClipIndex::uneven() const {
  if (pts_.size() < 3) return false;
  const std::vector<std::int64_t> gaps = spacings(pts_);
  const auto median = static_cast<double>(medianOf(gaps));
  const double slack = std::max(0.1 * median, 1.5);  // ticks
  return std::any_of(gaps.begin(), gaps.end(),
                     [&](std::int64_t gap) { return std::abs(static_cast<double>(gap) - median) > slack; });
}

}  // namespace fin
