// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/lift.h"

#include <fmt/format.h>
#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "core/readings/rhythm_readings.h"

namespace fin {
namespace {

constexpr double kCycle_rad = 2.0 * std::numbers::pi;
constexpr double kSlowestKick_Hz = 1.0;
constexpr double kFastestKick_Hz = 20.0;
constexpr double kOfFrameRate = 0.2;
constexpr int kDrawn = 60;
constexpr unsigned kDrawSeed = 7;
constexpr double kExplains = 0.3;  ///< of the rises' angle, for a kick to stand out

struct RiseFit {
  double rss = 0.0;
  double swing_deg = 0.0;
};

/// Mean, slope and a sine of one rise.
RiseFit fitRise(const Series& rise, double rate_Hz) {
  Eigen::MatrixXd a(static_cast<Eigen::Index>(rise.size()), 4);
  for (Eigen::Index i = 0; i < a.rows(); ++i) {
    const double t = rise.t_s[static_cast<std::size_t>(i)] - rise.t_s.front();
    a.row(i) << 1.0, t, std::cos(kCycle_rad * rate_Hz * t), std::sin(kCycle_rad * rate_Hz * t);
  }
  const Eigen::Map<const Eigen::VectorXd> y(rise.y.data(), a.rows());
  const Eigen::VectorXd p = a.colPivHouseholderQr().solve(y);
  return {(y - a * p).squaredNorm(), 2.0 * std::hypot(p[2], p[3])};
}

double rssOf(const std::vector<const Series*>& rises, double rate_Hz) {
  double sum = 0.0;
  for (const Series* rise : rises) sum += fitRise(*rise, rate_Hz).rss;
  return sum;
}

double bestRate(const std::vector<const Series*>& rises, double fastest_Hz, double usual_s) {
  double best = kSlowestKick_Hz;
  double least = 1e300;
  const double step = 0.1 / usual_s;
  // Slower than a kick a rise, the line and the sine are one and the same.
  for (double f = std::max(kSlowestKick_Hz, 0.7 / usual_s); f <= fastest_Hz; f += step) {
    const double rss = rssOf(rises, f);
    if (rss < least) {
      least = rss;
      best = f;
    }
  }
  return boost::math::tools::brent_find_minima([&](double f) { return rssOf(rises, f); }, best - step,
                                               best + step, 24)
      .first;
}

}  // namespace

void readLiftKick(const PassTraces& traces, const std::vector<Twitch>& hops, ReadingSheet& sheet) {
  const auto refuse = [&](const std::string& why) {
    for (const ReadingId id : {ReadingId::LiftKickFrequency, ReadingId::LiftKickAngle}) sheet.refuse(id, why);
  };
  std::vector<Series> rises;
  std::vector<double> lasts;
  for (const Twitch& hop : hops) {
    if (hop.leftOut) continue;
    Series rise = traces.kick.between(hop.start_s, hop.furthest_s);
    if (rise.size() < 8) continue;
    lasts.push_back(rise.span_s());
    rises.push_back(std::move(rise));
  }
  if (rises.empty()) return refuse("no hop rises in view for long enough");
  std::vector<const Series*> all;
  for (const Series& rise : rises) all.push_back(&rise);
  const double usual = median(lasts);
  const double fastest = std::min(kFastestKick_Hz, kOfFrameRate * traces.frameRate_Hz);
  const double rate = bestRate(all, fastest, usual);
  if (rate * usual < 1.0) return refuse("it kicks less than once a rise: lift it more slowly, or higher");
  double flat = 0.0;
  std::vector<double> swings;
  for (const Series& rise : rises) {
    flat += fitRise(rise, 1e-3 / usual).rss;
    swings.push_back(fitRise(rise, rate).swing_deg);
  }
  if (rssOf(all, rate) > (1.0 - kExplains) * flat) return refuse("no steady kick stands out on the way up");
  std::mt19937 random(kDrawSeed);
  std::uniform_int_distribution<std::size_t> pick(0, all.size() - 1);
  std::vector<double> drawnRates, drawnSwings;
  for (int i = 0; i < kDrawn; ++i) {
    std::vector<const Series*> drawn;
    std::vector<double> wide;
    for (std::size_t k = 0; k < all.size(); ++k) {
      const std::size_t at = pick(random);
      drawn.push_back(all[at]);
      wide.push_back(swings[at]);
    }
    const double step = 0.15 / usual;
    drawnRates.push_back(boost::math::tools::brent_find_minima([&](double f) { return rssOf(drawn, f); },
                                                               rate - step, rate + step, 16)
                             .first);
    drawnSwings.push_back(median(wide));
  }
  const auto n = static_cast<double>(all.size());
  const double few = std::sqrt(n / std::max(n - 1.0, 0.5));
  const auto spread = [&](const std::vector<double>& values) {
    double mean = 0.0, squares = 0.0;
    for (const double v : values) mean += v / static_cast<double>(values.size());
    for (const double v : values) squares += (v - mean) * (v - mean) / static_cast<double>(values.size());
    return kNormal95 * few * std::sqrt(squares);
  };
  const Swing tip = kickOf(traces);
  const auto give = [&](ReadingId id, double value, double u95, double floor, UncertaintySource source) {
    Estimate e;
    e.value = value;
    e.setUncertainty({{UncertaintySource::Scatter, u95}, {source, floor}});
    e.n = n;
    e.grade = gradeOf(e.value, e.u95);
    if (rate * usual < 2.0 || n < 3.0) {
      e.grade = Grade::Poor;
      e.notes.push_back(fmt::format("{:.1f} kicks a rise, {:.0f} rises", rate * usual, n));
    }
    sheet.give(id, e);
  };
  // A rise is short: half a frame more or less at its ends is that share of the rate.
  give(ReadingId::LiftKickFrequency, rate, spread(drawnRates), 0.01 * rate, UncertaintySource::FrameTime);
  give(ReadingId::LiftKickAngle, median(swings), spread(drawnSwings), perMove_deg(tip) * kMarkMoveU95.value(),
       UncertaintySource::Marks);
}

double lowShare_percent(const Levels& levels, double shift) {
  double low = 0.0;
  for (std::size_t i = 0; i < levels.height.size(); ++i) {
    if (levels.height.y[i] + shift < levels.whole.y[i] / 3.0) low += 1.0;
  }
  return 100.0 * low / static_cast<double>(levels.height.size());
}

void readLowShare(const Levels& levels, ReadingSheet& sheet) {
  if (levels.height.size() < 8) return;
  Estimate e;
  e.value = lowShare_percent(levels, 0.0);
  const double change =
      std::abs(lowShare_percent(levels, levels.unsure) - lowShare_percent(levels, -levels.unsure));
  e.setUncertainty({{UncertaintySource::Marks, 0.5 * change},
                    {UncertaintySource::FrameTime, 100.0 / static_cast<double>(levels.height.size())}});
  e.n = static_cast<double>(levels.height.size());
  e.grade = e.u95 < 3.0 ? Grade::Good : e.u95 < 10.0 ? Grade::Fair : Grade::Poor;
  sheet.give(ReadingId::LowShare, e);
}

void readBodyPulse(const Series& bend_deg, const std::vector<Twitch>& hops, double perMoveOfBend_deg,
                   ReadingSheet& sheet) {
  std::vector<double> bends;
  for (const Twitch& hop : hops) {
    const Series one = bend_deg.between(hop.start_s, hop.end_s);
    if (hop.leftOut || one.size() < 8) continue;
    const auto [least, most] = std::minmax_element(one.y.begin(), one.y.end());
    bends.push_back(*most - *least);
  }
  if (bends.empty()) return sheet.refuse(ReadingId::BodyPulse, "no hop shows the mid mark all along");
  Estimate e;
  e.value = median(bends);
  e.setUncertainty({{UncertaintySource::Scatter, bends.size() > 1 ? medianU95(bends) : 0.5 * e.value},
                    {UncertaintySource::Marks, perMoveOfBend_deg}});
  e.n = static_cast<double>(bends.size());
  e.grade = gradeOf(e.value, e.u95);
  sheet.give(ReadingId::BodyPulse, e);
}

}  // namespace fin
