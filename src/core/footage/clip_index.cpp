// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_index.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <istream>
#include <limits>
#include <ostream>

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

constexpr std::uint64_t kStamp = 0x31'78'64'6E'49'6E'69'46;  ///< "FinIndx1": raise the digit with the form
constexpr double kGap_spacings = 5.0;

template <class T>
void put(std::ostream& out, const T& value) {
  out.write(reinterpret_cast<const char*>(&value), sizeof value);
}
template <class T>
void putAll(std::ostream& out, const std::vector<T>& values) {
  put(out, static_cast<std::uint64_t>(values.size()));
  out.write(reinterpret_cast<const char*>(values.data()),
            static_cast<std::streamsize>(values.size() * sizeof(T)));
}
template <class T>
bool take(std::istream& in, T& value) {
  return static_cast<bool>(in.read(reinterpret_cast<char*>(&value), sizeof value));
}
/// Bytes from here to the end.
std::uint64_t bytesLeft(std::istream& in) {
  const auto here = in.tellg();
  in.seekg(0, std::ios::end);
  const auto end = in.tellg();
  in.seekg(here);
  return here < 0 || end < here ? 0 : static_cast<std::uint64_t>(end - here);
}
template <class T>
bool takeAll(std::istream& in, std::vector<T>& values) {
  std::uint64_t size = 0;
  if (!take(in, size) || size > bytesLeft(in) / sizeof(T)) return false;
  values.resize(size);
  return static_cast<bool>(
      in.read(reinterpret_cast<char*>(values.data()), static_cast<std::streamsize>(size * sizeof(T))));
}

}  // namespace

ClipIndex::ClipIndex(std::vector<Packet> packets, double tick_s, std::vector<Restart> restarts)
    : restarts_(std::move(restarts)), tick_s_(tick_s) {
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

ClipIndex ClipIndex::byField() const {
  ClipIndex out;
  out.tick_s_ = 0.5 * tick_s_;
  const std::int64_t usual = pts_.size() > 1 ? medianOf(spacings(pts_)) : 0;
  for (std::size_t i = 0; i < pts_.size(); ++i) {
    const std::int64_t spacing = i + 1 < pts_.size() ? std::min(pts_[i + 1] - pts_[i], 2 * usual) : usual;
    out.pts_.push_back(2 * pts_[i]);
    out.pts_.push_back(2 * pts_[i] + spacing);
  }
  return out;
}

void ClipIndex::writeTo(std::ostream& out) const {
  put(out, kStamp);
  put(out, tick_s_);
  putAll(out, pts_);
  putAll(out, keys_);
  putAll(out, restarts_);
  put(out, kStamp);
}

std::optional<ClipIndex> ClipIndex::readFrom(std::istream& in) {
  ClipIndex out;
  std::uint64_t head = 0;
  std::uint64_t foot = 0;
  const bool whole = take(in, head) && head == kStamp && take(in, out.tick_s_) && takeAll(in, out.pts_) &&
                     takeAll(in, out.keys_) && takeAll(in, out.restarts_) && take(in, foot) && foot == kStamp;
  if (!whole || !std::is_sorted(out.pts_.begin(), out.pts_.end())) return std::nullopt;
  return out;
}

std::int64_t ClipIndex::shiftAt(std::int64_t pos) const {
  const auto after = std::upper_bound(restarts_.begin(), restarts_.end(), pos,
                                      [](std::int64_t at, const Restart& r) { return at < r.pos; });
  return after == restarts_.begin() ? 0 : (after - 1)->shift;
}

std::size_t ClipIndex::firstAtByte(std::int64_t pos) const {
  const auto key = std::find_if(keys_.begin(), keys_.end(), [pos](const Packet& k) { return k.pos >= pos; });
  return key == keys_.end() ? frameCount() : frameAt(key->pts).value_or(0);
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

std::optional<ClipIndex::Gap> ClipIndex::longestGap() const {
  if (pts_.size() < 3) return std::nullopt;
  const std::vector<std::int64_t> gaps = spacings(pts_);
  const auto longest = std::max_element(gaps.begin(), gaps.end());
  if (static_cast<double>(*longest) <= kGap_spacings * static_cast<double>(medianOf(gaps)))
    return std::nullopt;
  return Gap{static_cast<std::size_t>(longest - gaps.begin()),
             Seconds(static_cast<double>(*longest) * tick_s_)};
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
