// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/running_mean.h"

#include <algorithm>

#include "core/signals/line_fit.h"

namespace fin {
namespace {

/// The integral of the joined-up series from its start, at any time inside it.
class Integral {
 public:
  explicit Integral(const Series& s) : s_(s), sum_(s.size(), 0.0) {
    for (std::size_t i = 1; i < s.size(); ++i) {
      sum_[i] = sum_[i - 1] + 0.5 * (s.y[i] + s.y[i - 1]) * (s.t_s[i] - s.t_s[i - 1]);
    }
  }
  [[nodiscard]] double upTo(double t) const {
    const auto after = std::upper_bound(s_.t_s.begin(), s_.t_s.end(), t);
    if (after == s_.t_s.begin()) return 0.0;
    if (after == s_.t_s.end()) return sum_.back();
    const auto i = static_cast<std::size_t>(after - s_.t_s.begin()) - 1;
    const double dt = t - s_.t_s[i];
    const double slope = (s_.y[i + 1] - s_.y[i]) / (s_.t_s[i + 1] - s_.t_s[i]);
    return sum_[i] + dt * (s_.y[i] + 0.5 * slope * dt);
  }

 private:
  const Series& s_;
  std::vector<double> sum_;
};

/// Straight line through the whole windows next to an end, for going on past them.
Series goOn(const Series& whole, const std::vector<double>& times, double reach_s, bool atStart) {
  const Series near = atStart ? whole.between(whole.t_s.front(), whole.t_s.front() + reach_s)
                              : whole.between(whole.t_s.back() - reach_s, whole.t_s.back());
  const auto line = fitLine(near);
  Series out;
  for (double t : times) out.add(t, line ? line->at(t) : near.y.front());
  return out;
}

}  // namespace

Series runningMean(const Series& series, double window_s) {
  if (series.span_s() <= window_s) {
    const auto line = fitLine(series);
    Series out;
    for (std::size_t i = 0; i < series.size(); ++i) {
      out.add(series.t_s[i], line ? line->at(series.t_s[i]) : series.y[i]);
    }
    return out;
  }
  const Integral integral(series);
  const double half = 0.5 * window_s;
  Series whole;
  std::vector<double> before;
  std::vector<double> after;
  for (double t : series.t_s) {
    if (t - half < series.t_s.front()) {
      before.push_back(t);
    } else if (t + half > series.t_s.back()) {
      after.push_back(t);
    } else {
      whole.add(t, (integral.upTo(t + half) - integral.upTo(t - half)) / window_s);
    }
  }
  if (whole.empty()) return runningMean(series, series.span_s());
  Series out = goOn(whole, before, half, true);
  for (std::size_t i = 0; i < whole.size(); ++i) out.add(whole.t_s[i], whole.y[i]);
  const Series tail = goOn(whole, after, half, false);
  for (std::size_t i = 0; i < tail.size(); ++i) out.add(tail.t_s[i], tail.y[i]);
  return out;
}

Series withoutRunningMean(const Series& series, double window_s) {
  Series out = runningMean(series, window_s);
  for (std::size_t i = 0; i < out.size(); ++i) out.y[i] = series.y[i] - out.y[i];
  return out;
}

}  // namespace fin
