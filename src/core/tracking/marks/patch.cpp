// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/patch.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numeric>

namespace fin {
namespace {

constexpr double kWeightSigma = 0.5;  ///< of the radius
constexpr int kRefineSteps = 12;
constexpr double kRefineDone_px = 0.004;
constexpr double kRefineReach_px = 2.5;
constexpr float kSmallestNorm = 0.3F;       ///< grey levels: below, there is no contrast at all
constexpr float kLeastOwnContrast = 0.35F;  ///< of the look's own: fainter ones are less like it

constexpr int kCoarseRadius_px = 7;  ///< from there on a look is told at half the size too
constexpr int kCoarseReach_px = 8;   ///< and a search so far is worth it
constexpr int kNarrow_px = 8;
constexpr int kAboutCoarse_px = 2;       ///< looked about such a place
constexpr std::size_t kCoarsePeaks = 3;  ///< for each that is wanted

/// Gaussian weights over one axis of a patch, with the sum 1.
std::vector<float> alongOneAxis(int radius) {
  std::vector<float> weights;
  const double sigma = kWeightSigma * radius;
  double sum = 0.0;
  for (int x = -radius; x <= radius; ++x) {
    const double w = std::exp(-0.5 * x * x / (sigma * sigma));
    weights.push_back(static_cast<float>(w));
    sum += w;
  }
  for (float& w : weights) w = static_cast<float>(static_cast<double>(w) / sum);
  return weights;
}

/// The same at half the size: what two samples count together.
std::vector<float> halved(const std::vector<float>& along) {
  std::vector<float> out;
  float sum = 0.0F;
  for (std::size_t i = 0; i + 1 < along.size(); i += 2) sum += out.emplace_back(along[i] + along[i + 1]);
  for (float& w : out) w /= sum;
  return out;
}

/// Means of two by two samples of a square.
std::vector<float> halved(const std::vector<float>& samples, int wide) {
  const int half = wide / 2;
  std::vector<float> out;
  out.reserve(static_cast<std::size_t>(half) * static_cast<std::size_t>(half));
  for (int y = 0; y < half; ++y) {
    const float* upper = samples.data() + 2 * y * wide;
    const float* lower = upper + wide;
    for (int x = 0; x < half; ++x)
      out.push_back(0.25F * (upper[2 * x] + upper[2 * x + 1] + lower[2 * x] + lower[2 * x + 1]));
  }
  return out;
}

std::vector<float> overBothAxes(const std::vector<float>& along) {
  std::vector<float> weights;
  for (const float y : along) {
    for (const float x : along) weights.push_back(x * y);
  }
  return weights;
}

/// Sums of a kernel times a window of rows of `wide`, at every place where it fits in. (For kernels and
/// reaches of some ten pixels this takes a fraction of what a Fourier transform does; more so with wide
/// registers.)
#ifndef __SANITIZE_THREAD__  // it cannot look at the choice between the two, which is made before main()
[[gnu::target_clones("avx2", "default")]]
#endif
std::vector<float>
slid(const std::vector<float>& window, int wide, const std::vector<float>& kernel, int kernelWide,
     int kernelHigh) {
  const int across = wide - kernelWide + 1;
  const int down = static_cast<int>(window.size()) / wide - kernelHigh + 1;
  std::vector<float> out(static_cast<std::size_t>(across) * static_cast<std::size_t>(down), 0.0F);
  if (across < kNarrow_px) {  // row by row of the kernel, as the places of a row do not fill a register
    for (int y = 0; y < down; ++y) {
      for (int x = 0; x < across; ++x) {
        float& sum = out[static_cast<std::size_t>(y * across + x)];
        for (int v = 0; v < kernelHigh; ++v) {
          using Row = Eigen::Map<const Eigen::VectorXf>;
          sum += Row(kernel.data() + v * kernelWide, kernelWide)
                     .dot(Row(window.data() + (y + v) * wide + x, kernelWide));
        }
      }
    }
    return out;
  }
  for (int y = 0; y < down; ++y) {
    float* to = out.data() + y * across;
    const float* weight = kernel.data();
    for (int v = 0; v < kernelHigh; ++v) {
      for (int u = 0; u < kernelWide; ++u) {
        const float w = *weight++;
        const float* from = window.data() + (y + v) * wide + u;
        for (int x = 0; x < across; ++x) to[x] += w * from[x];
      }
    }
  }
  return out;
}

/// Weighted variance about each place. The weights go row by row and column by column.
std::vector<float> varianceIn(const PatchWindow& window, const std::vector<float>& along) {
  const int side = static_cast<int>(along.size());
  const auto weighted = [&](const std::vector<float>& samples) {
    return slid(slid(samples, window.wide, along, side, 1), window.wide - side + 1, along, 1, side);
  };
  std::vector<float> squares = window.samples;
  for (float& s : squares) s *= s;
  const std::vector<float> mean = weighted(window.samples);
  std::vector<float> out = weighted(squares);
  for (std::size_t i = 0; i < out.size(); ++i) out[i] -= mean[i] * mean[i];
  return out;
}

/// A square of a window, its upper left corner at (x, y), as far as the window goes.
PatchWindow partOf(const PatchWindow& window, int x, int y, int wide) {
  PatchWindow out{wide, {}, {}};
  for (int row = y; row < y + wide; ++row) {
    const auto from = window.samples.begin() + row * window.wide + x;
    out.samples.insert(out.samples.end(), from, from + wide);
  }
  return out;
}

/// Places that are higher than those beside them, from the upper left corner, best first.
std::vector<PatchTemplate::Peak> peaksOf(const std::vector<float>& scores, int steps) {
  const auto at = [&](int x, int y) { return scores[static_cast<std::size_t>(y * steps + x)]; };
  std::vector<PatchTemplate::Peak> peaks;
  for (int y = 0; y < steps; ++y) {
    for (int x = 0; x < steps; ++x) {
      bool highest = true;
      for (int v = std::max(y - 1, 0); v <= std::min(y + 1, steps - 1); ++v) {
        for (int u = std::max(x - 1, 0); u <= std::min(x + 1, steps - 1); ++u)
          highest &= at(u, v) <= at(x, y);
      }
      if (highest) peaks.push_back({x, y, static_cast<double>(at(x, y))});
    }
  }
  std::sort(peaks.begin(), peaks.end(), [](const auto& a, const auto& b) { return a.score > b.score; });
  return peaks;
}

}  // namespace

PixelPoint PatchPose::at(PixelPoint own) const {
  const double c = scale * std::cos(angle_rad);
  const double s = scale * std::sin(angle_rad);
  return centre + PixelPoint{c * own.x_px - s * own.y_px, s * own.x_px + c * own.y_px};
}

std::vector<float> cutPatch(const cv::Mat& grey, const PatchPose& pose, int radius_px) {
  const int side = 2 * radius_px + 1;
  std::vector<float> out(static_cast<std::size_t>(side) * static_cast<std::size_t>(side));
  const PatchPose own{{}, pose.angle_rad, pose.scale};
  const PixelPoint step = own.at({1.0, 0.0});
  const auto maxX = static_cast<float>(grey.cols - 1);
  const auto maxY = static_cast<float>(grey.rows - 1);
  float* to = out.data();
  for (int y = -radius_px; y <= radius_px; ++y) {
    const PixelPoint rowStart = pose.centre + own.at({-1.0 * radius_px, 1.0 * y});
    auto fx = static_cast<float>(rowStart.x_px);
    auto fy = static_cast<float>(rowStart.y_px);
    for (int x = 0; x < side; ++x) {
      const float cx = std::clamp(fx, 0.0F, maxX);
      const float cy = std::clamp(fy, 0.0F, maxY);
      const int ix = std::min(static_cast<int>(cx), std::max(grey.cols - 2, 0));
      const int iy = std::min(static_cast<int>(cy), std::max(grey.rows - 2, 0));
      const float ax = cx - static_cast<float>(ix);
      const float ay = cy - static_cast<float>(iy);
      const uchar* p = grey.ptr<uchar>(iy) + ix;
      const uchar* q = grey.ptr<uchar>(std::min(iy + 1, grey.rows - 1)) + ix;
      const int right = grey.cols > 1 ? 1 : 0;
      const float top = static_cast<float>(p[0]) * (1.0F - ax) + static_cast<float>(p[right]) * ax;
      const float bottom = static_cast<float>(q[0]) * (1.0F - ax) + static_cast<float>(q[right]) * ax;
      *to++ = top * (1.0F - ay) + bottom * ay;
      fx += static_cast<float>(step.x_px);
      fy += static_cast<float>(step.y_px);
    }
  }
  return out;
}

PatchTemplate::Kernel PatchTemplate::kernelOf(const std::vector<float>& samples,
                                              const std::vector<float>& along) {
  const std::vector<float> weights = overBothAxes(along);
  Kernel out{static_cast<int>(along.size()), {}, kSmallestNorm};
  const float mean = std::inner_product(samples.begin(), samples.end(), weights.begin(), 0.0F);
  float power = 0.0F;
  for (std::size_t i = 0; i < samples.size(); ++i)
    power += weights[i] * (samples[i] - mean) * (samples[i] - mean);
  const float norm = std::max(std::sqrt(power), kSmallestNorm);
  out.leastContrast = std::max(kSmallestNorm, kLeastOwnContrast * norm);
  for (std::size_t i = 0; i < samples.size(); ++i)
    out.weightedLook.push_back(weights[i] * (samples[i] - mean) / std::max(norm, out.leastContrast));
  return out;
}

PatchTemplate::PatchTemplate(const cv::Mat& grey, const PatchPose& pose, int radius_px)
    : radius_px_(radius_px) {
  const std::vector<float> patch = cutPatch(grey, pose, radius_px);
  const std::vector<float> along = alongOneAxis(radius_px);
  fine_ = kernelOf(patch, along);
  coarse_ = kernelOf(halved(patch, 2 * radius_px + 1), halved(along));
  weights_ = overBothAxes(along);
  const float norm = std::max(contrastOf(patch), kSmallestNorm);
  look_ = normalised(patch);

  // Slopes by central differences, from a cut one pixel wider.
  const int wide = 2 * radius_px + 3;
  const std::vector<float> around = cutPatch(grey, pose, radius_px + 1);
  Eigen::Matrix2d gradients = Eigen::Matrix2d::Zero();
  for (int y = 1; y + 1 < wide; ++y) {
    for (int x = 1; x + 1 < wide; ++x) {
      const float* at = &around[static_cast<std::size_t>(y * wide + x)];
      const float gx = 0.5F * (at[1] - at[-1]);
      const float gy = 0.5F * (at[wide] - at[-wide]);
      const double w = static_cast<double>(weights_[slopeX_.size()]);
      gradients += w * Eigen::Vector2d(gx, gy) * Eigen::Vector2d(gx, gy).transpose();
      slopeX_.push_back(gx / norm);
      slopeY_.push_back(gy / norm);
    }
  }
  structure_ =
      std::sqrt(std::max(Eigen::SelfAdjointEigenSolver<Eigen::Matrix2d>(gradients).eigenvalues()[0], 0.0));
}

float PatchTemplate::meanOf(const std::vector<float>& patch) const {
  return std::inner_product(patch.begin(), patch.end(), weights_.begin(), 0.0F);
}

float PatchTemplate::contrastOf(const std::vector<float>& patch) const {
  const float mean = meanOf(patch);
  float power = 0.0F;
  for (std::size_t i = 0; i < patch.size(); ++i) power += weights_[i] * (patch[i] - mean) * (patch[i] - mean);
  return std::sqrt(power);
}

std::vector<float> PatchTemplate::normalised(const std::vector<float>& patch) const {
  const float mean = meanOf(patch);
  const float norm = std::max(contrastOf(patch), fine_.leastContrast);
  std::vector<float> out(patch.size());
  for (std::size_t i = 0; i < patch.size(); ++i) out[i] = (patch[i] - mean) / norm;
  return out;
}

double PatchTemplate::correlation(const std::vector<float>& patch) const {
  const std::vector<float> other = normalised(patch);
  float sum = 0.0F;
  for (std::size_t i = 0; i < other.size(); ++i) sum += fine_.weightedLook[i] * other[i];
  return static_cast<double>(sum);
}

PatchSurroundings::PatchSurroundings(const cv::Mat& grey, const PatchPose& pose, int radius_px, int reach_px)
    : reach_px_(reach_px) {
  fine_.wide = 2 * (radius_px + reach_px) + 1;
  fine_.samples = cutPatch(grey, pose, radius_px + reach_px);
  // About one grey, so that the squares keep their digits.
  for (float& s : fine_.samples) s -= 128.0F;
  const std::vector<float> along = alongOneAxis(radius_px);
  if (radius_px >= kCoarseRadius_px && reach_px >= kCoarseReach_px) {
    coarse_ = PatchWindow{fine_.wide / 2, halved(fine_.samples, fine_.wide), {}};
    coarse_->variance = varianceIn(*coarse_, halved(along));
  } else {
    fine_.variance = varianceIn(fine_, along);
  }
}

std::vector<float> PatchTemplate::scoresIn(const PatchWindow& window, const Kernel& kernel) {
  std::vector<float> scores =
      slid(window.samples, window.wide, kernel.weightedLook, kernel.side, kernel.side);
  const float least = kernel.leastContrast * kernel.leastContrast;
  for (std::size_t i = 0; i < scores.size(); ++i) scores[i] /= std::sqrt(std::max(window.variance[i], least));
  return scores;
}

std::vector<PatchTemplate::Peak> PatchTemplate::search(const PatchSurroundings& around,
                                                       std::size_t most) const {
  std::vector<Peak> peaks = around.coarse_ ? searchCoarsely(around, most)
                                           : peaksOf(scoresIn(around.fine_, fine_), 2 * around.reach_px_ + 1);
  if (peaks.size() > most) peaks.resize(most);
  for (Peak& peak : peaks) {
    peak.dx_px -= around.reach_px_;
    peak.dy_px -= around.reach_px_;
  }
  return peaks;
}

/// Where it is highest at half the size, the highest place about each.
std::vector<PatchTemplate::Peak> PatchTemplate::searchCoarsely(const PatchSurroundings& around,
                                                               std::size_t most) const {
  const std::vector<float> along = alongOneAxis(radius_px_);
  const int steps = around.coarse_->wide - coarse_.side + 1;
  const int last = 2 * around.reach_px_ - 2 * kAboutCoarse_px;
  std::vector<Peak> coarse = peaksOf(scoresIn(*around.coarse_, coarse_), steps);
  if (coarse.size() > kCoarsePeaks * most) coarse.resize(kCoarsePeaks * most);
  std::vector<Peak> out;
  for (const Peak& peak : coarse) {
    const int x = std::clamp(2 * peak.dx_px - kAboutCoarse_px, 0, last);
    const int y = std::clamp(2 * peak.dy_px - kAboutCoarse_px, 0, last);
    PatchWindow window = partOf(around.fine_, x, y, fine_.side + 2 * kAboutCoarse_px);
    window.variance = varianceIn(window, along);
    Peak best = peaksOf(scoresIn(window, fine_), 2 * kAboutCoarse_px + 1).front();
    best.dx_px += x;
    best.dy_px += y;
    const bool known = std::any_of(out.begin(), out.end(), [&](const Peak& p) {
      return p.dx_px == best.dx_px && p.dy_px == best.dy_px;
    });
    if (!known) out.push_back(best);
  }
  std::sort(out.begin(), out.end(), [](const Peak& a, const Peak& b) { return a.score > b.score; });
  return out;
}

PatchTemplate::Fit PatchTemplate::refine(const cv::Mat& grey, const PatchPose& start) const {
  Eigen::Matrix2d normal = Eigen::Matrix2d::Zero();
  for (std::size_t i = 0; i < look_.size(); ++i) {
    const Eigen::Vector2d slope(slopeX_[i], slopeY_[i]);
    normal += static_cast<double>(weights_[i]) * slope * slope.transpose();
  }
  PatchPose pose = start;
  Fit fit{pose.centre, 0.0, false};
  for (int step = 0; step < kRefineSteps && !fit.converged; ++step) {
    const std::vector<float> here = normalised(cutPatch(grey, pose, radius_px_));
    float bx = 0.0F;
    float by = 0.0F;
    for (std::size_t i = 0; i < here.size(); ++i) {
      const float e = weights_[i] * (here[i] - look_[i]);
      bx += slopeX_[i] * e;
      by += slopeY_[i] * e;
    }
    const Eigen::Vector2d move = normal.ldlt().solve(Eigen::Vector2d(bx, by));
    if (!move.allFinite()) return fit;
    pose.centre = pose.at({-move.x(), -move.y()});
    if (length(pose.centre - start.centre).value() > kRefineReach_px * start.scale) return fit;
    fit.converged = move.norm() < kRefineDone_px;
  }
  fit.at = pose.centre;
  fit.score = correlation(cutPatch(grey, pose, radius_px_));
  return fit;
}

}  // namespace fin
