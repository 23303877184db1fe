// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/periodogram.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>
#include <numeric>

namespace fin {
namespace {

constexpr std::size_t kResync = 256;  ///< grid steps after which the turning phasors are set anew

/// One unit phasor per sample, turned on by one grid step of frequency at a time.
class Phasors {
 public:
  Phasors(const Series& s, double step_Hz) : s_(s), now_(s.size()), turn_(s.size()) {
    for (std::size_t i = 0; i < s.size(); ++i) turn_[i] = std::polar(1.0, angle(step_Hz, i));
  }
  void set(double frequency_Hz) {
    for (std::size_t i = 0; i < s_.size(); ++i) now_[i] = std::polar(1.0, angle(frequency_Hz, i));
  }
  void turn() {
    for (std::size_t i = 0; i < now_.size(); ++i) {
      const double re = now_[i].real() * turn_[i].real() - now_[i].imag() * turn_[i].imag();
      const double im = now_[i].real() * turn_[i].imag() + now_[i].imag() * turn_[i].real();
      now_[i] = {re, im};
    }
  }
  [[nodiscard]] const std::vector<std::complex<double>>& now() const { return now_; }

 private:
  [[nodiscard]] double angle(double frequency_Hz, std::size_t i) const {
    return 2.0 * std::numbers::pi * frequency_Hz * (s_.t_s[i] - s_.t_s.front());
  }
  const Series& s_;
  std::vector<std::complex<double>> now_;
  std::vector<std::complex<double>> turn_;
};

double powerAt(const std::vector<std::complex<double>>& phasors, const std::vector<double>& y, double yy) {
  double c = 0.0, s = 0.0, cc = 0.0, cs = 0.0, yc = 0.0, ys = 0.0;
  for (std::size_t i = 0; i < y.size(); ++i) {
    const double re = phasors[i].real();
    const double im = phasors[i].imag();
    c += re;
    s += im;
    cc += re * re;
    cs += re * im;
    yc += y[i] * re;
    ys += y[i] * im;
  }
  const auto n = static_cast<double>(y.size());
  const double ccHat = cc / n - (c / n) * (c / n);
  const double ssHat = 1.0 - cc / n - (s / n) * (s / n);
  const double csHat = cs / n - (c / n) * (s / n);
  const double d = ccHat * ssHat - csHat * csHat;
  if (d <= 1e-12) return 0.0;
  const double a = yc / n;
  const double b = ys / n;
  return (ssHat * a * a + ccHat * b * b - 2.0 * csHat * a * b) / (yy * d);
}

}  // namespace

Spectrum periodogram(const Series& series, double from_Hz, double to_Hz, double perWidth) {
  Spectrum out;
  if (series.size() < 4 || series.span_s() <= 0.0 || to_Hz <= from_Hz) return out;
  const double mean =
      std::accumulate(series.y.begin(), series.y.end(), 0.0) / static_cast<double>(series.size());
  std::vector<double> y;
  double yy = 0.0;
  for (double v : series.y) {
    y.push_back(v - mean);
    yy += (v - mean) * (v - mean) / static_cast<double>(series.size());
  }
  if (yy <= 0.0) return out;
  const double step = 1.0 / (perWidth * series.span_s());
  const auto count = static_cast<std::size_t>(std::floor((to_Hz - from_Hz) / step)) + 1;
  Phasors phasors(series, step);
  for (std::size_t k = 0; k < count; ++k) {
    const double f = from_Hz + static_cast<double>(k) * step;
    if (k % kResync == 0) {
      phasors.set(f);
    } else {
      phasors.turn();
    }
    out.frequency_Hz.push_back(f);
    out.power.push_back(powerAt(phasors.now(), y, yy));
  }
  return out;
}

std::vector<std::size_t> spectrumPeaks(const Spectrum& spectrum, std::size_t most) {
  std::vector<std::size_t> peaks;
  for (std::size_t i = 0; i < spectrum.power.size(); ++i) {
    const bool left = i == 0 || spectrum.power[i] >= spectrum.power[i - 1];
    const bool right = i + 1 == spectrum.power.size() || spectrum.power[i] > spectrum.power[i + 1];
    if (left && right) peaks.push_back(i);
  }
  std::sort(peaks.begin(), peaks.end(),
            [&](std::size_t a, std::size_t b) { return spectrum.power[a] > spectrum.power[b]; });
  if (peaks.size() > most) peaks.resize(most);
  return peaks;
}

}  // namespace fin
