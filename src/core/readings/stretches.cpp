// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/stretches.h"

#include <algorithm>
#include <cmath>

#include "core/signals/local_fit.h"
#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kSmoothPath_s = 0.05;  ///< either way
constexpr double kRunStarts = 0.25;
constexpr double kRunEnds = 0.10;
constexpr double kFastShare95 = 0.95;
constexpr double kPull_s = 1.5;
constexpr double kShort_s = 0.3;
constexpr double kRisesOver = 0.5;  ///< of its way
constexpr std::size_t kFewestPlaces = 16;

enum class Does { Still, Runs, Falls };

struct PathMotion {
  std::vector<double> t, along, down, speed, height;
  double fast = 0.0;
  double fastAlong = 0.0;
  double fastSinking = 0.0;
};

double fastOf(std::vector<double> values) {
  return values.empty() ? 0.0 : quantileOf(std::span<double>(values), kFastShare95);
}

PathMotion pathMotionOf(const PassTraces& traces) {
  PathMotion out;
  std::vector<double> sinking, forth;
  for (std::size_t i = 0; i < traces.alongCentre.size(); ++i) {
    const double t = traces.alongCentre.t_s[i];
    const auto along = localFit(traces.alongCentre, t, kSmoothPath_s);
    const auto up = localFit(traces.upCentre, t, kSmoothPath_s);
    if (!along || !up) continue;
    out.t.push_back(t);
    out.along.push_back(along->slope);
    out.down.push_back(-up->slope);
    out.speed.push_back(std::hypot(along->slope, up->slope));
    out.height.push_back(i < traces.overBottom.size() ? traces.overBottom.y[i] : 1e300);
    forth.push_back(std::abs(along->slope));
    if (up->slope < 0.0) sinking.push_back(-up->slope);
  }
  out.fast = fastOf(out.speed);
  out.fastAlong = fastOf(forth);
  out.fastSinking = fastOf(sinking);
  return out;
}

struct PathPart {
  Does does = Does::Still;
  std::size_t from = 0;
  std::size_t to = 0;  ///< the last one, included
};

std::vector<PathPart> partsOf(const PathMotion& m) {
  std::vector<PathPart> out;
  Does now = Does::Still;
  for (std::size_t i = 0; i < m.t.size(); ++i) {
    const bool sinks = m.down[i] > std::max(kRunStarts * m.fastSinking, kRunEnds * m.fast) &&
                       std::abs(m.along[i]) < kRunStarts * m.fastAlong;
    const bool still = m.speed[i] < kRunEnds * m.fast;
    Does next = now;
    if (sinks) {
      next = Does::Falls;
    } else if (still) {
      next = Does::Still;
    } else if (now == Does::Still && m.speed[i] > kRunStarts * m.fast) {
      next = Does::Runs;
    } else if (now == Does::Falls && std::abs(m.along[i]) >= kRunStarts * m.fastAlong) {
      next = Does::Runs;
    }
    if (out.empty() || next != now) out.push_back({next, i, i});
    out.back().to = i;
    now = next;
  }
  return out;
}

Protocol protocolOf(const PathMotion& m, const PathPart& part, double bottomWithin) {
  const bool atBottom = m.height[part.from] <= bottomWithin;
  if (part.does == Does::Falls) return Protocol::Fall;
  if (part.does == Does::Still) return atBottom ? Protocol::Rest : Protocol::Pause;
  double up = 0.0, way = 0.0;
  for (std::size_t i = part.from + 1; i <= part.to; ++i) {
    const double dt = m.t[i] - m.t[i - 1];
    up -= m.down[i] * dt;
    way += m.speed[i] * dt;
  }
  if (atBottom && up > kRisesOver * way) return Protocol::Hop;
  return m.t[part.to] - m.t[part.from] >= kPull_s ? Protocol::Retrieve : Protocol::Twitch;
}

/// What belongs together becomes one; what is short joins its longer neighbour.
class Joined {
 public:
  void add(PathStretch next) {
    if (!all_.empty() && belongs(all_.back().protocol, next.protocol)) {
      all_.back().to_s = next.to_s;
      return;
    }
    all_.push_back(next);
  }
  std::vector<PathStretch> withoutShort() {
    for (std::size_t i = 0; i < all_.size() && all_.size() > 1;) {
      const PathStretch& s = all_[i];
      const bool stands = s.protocol != Protocol::Pause && s.protocol != Protocol::Rest;
      if (stands || s.to_s - s.from_s >= kShort_s) {
        ++i;
        continue;
      }
      const double before = i > 0 ? all_[i - 1].to_s - all_[i - 1].from_s : -1.0;
      const double after = i + 1 < all_.size() ? all_[i + 1].to_s - all_[i + 1].from_s : -1.0;
      if (before >= after) {
        all_[i - 1].to_s = s.to_s;
      } else {
        all_[i + 1].from_s = s.from_s;
      }
      all_.erase(all_.begin() + static_cast<std::ptrdiff_t>(i));
      i = i > 0 ? i - 1 : 0;
    }
    return all_;
  }

 private:
  static bool belongs(Protocol before, Protocol next) {
    if (before == Protocol::Twitch) return next == Protocol::Twitch || next == Protocol::Pause;
    if (before == Protocol::Hop)
      return next == Protocol::Hop || next == Protocol::Fall || next == Protocol::Rest ||
             next == Protocol::Pause;
    return before == next;
  }
  std::vector<PathStretch> all_;
};

}  // namespace

std::vector<PathStretch> findStretches(const PassTraces& traces, double bottomWithin) {
  const PathMotion m = pathMotionOf(traces);
  if (m.t.size() < kFewestPlaces) return {};
  Joined joined;
  std::vector<PathPart> parts = partsOf(m);
  for (const PathPart& part : parts) {
    const double next = part.to + 1 < m.t.size() ? m.t[part.to + 1] : m.t[part.to];
    joined.add({protocolOf(m, part, bottomWithin), m.t[part.from], next});
  }
  // Short stillness goes first: what it parted may belong together then.
  Joined again;
  for (const PathStretch& stretch : joined.withoutShort()) again.add(stretch);
  return again.withoutShort();
}

}  // namespace fin
