// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/patch.h"

#include <Eigen/Dense>
#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <numeric>

namespace fin {
namespace {

constexpr double kWeightSigma = 0.5;  ///< of the radius
constexpr int kRefineSteps = 12;
constexpr double kRefineDone_px = 0.004;
constexpr double kRefineReach_px = 2.5;
constexpr double kSmallestNorm = 0.3;       ///< grey levels: below, there is no contrast at all
constexpr double kLeastOwnContrast = 0.35;  ///< of the look's own: fainter ones are less like it

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

std::vector<float> gaussianWeights(int radius) {
  const std::vector<float> along = alongOneAxis(radius);
  std::vector<float> weights;
  for (const float y : along) {
    for (const float x : along) weights.push_back(x * y);
  }
  return weights;
}

// The thread sanitizer cannot look at the choice between the two, which is made before main().
#ifdef __SANITIZE_THREAD__
#define FIN_WITH_WIDE_REGISTERS
#else
#define FIN_WITH_WIDE_REGISTERS [[gnu::target_clones("avx2", "default")]]
#endif

typedef float Eight __attribute__((vector_size(32)));
constexpr int kBlock = 32;  ///< places whose sums are kept in registers

/// A kernel and the window that it is slid over, both row by row.
struct Sliding {
  const float* window;
  int wide;
  const float* kernel;
  int kernelWide;
  int kernelHigh;
};

/// Its sums at kBlock places beside each other, from the one whose first sample is `from`.
FIN_WITH_WIDE_REGISTERS void sumBlock(const Sliding& s, const float* from, float* to) {
  std::array<Eight, kBlock / 8> sums{};
  const float* weight = s.kernel;
  for (int v = 0; v < s.kernelHigh; ++v, from += s.wide - s.kernelWide) {
    for (int u = 0; u < s.kernelWide; ++u, ++from, ++weight) {
      for (std::size_t k = 0; k < sums.size(); ++k) {
        Eight samples;
        std::memcpy(&samples, from + 8 * k, sizeof samples);
        sums[k] += *weight * samples;
      }
    }
  }
  std::memcpy(to, sums.data(), sizeof sums);
}

/// Its sums at fewer places.
FIN_WITH_WIDE_REGISTERS void sumFew(const Sliding& s, const float* from, float* to, int places) {
  const float* weight = s.kernel;
  for (int v = 0; v < s.kernelHigh; ++v, from += s.wide - s.kernelWide) {
    for (int u = 0; u < s.kernelWide; ++u, ++from, ++weight) {
      for (int x = 0; x < places; ++x) to[x] += *weight * from[x];
    }
  }
}

/// Sums of a kernel times a window of rows of `wide`, at every place where it fits in. (For kernels and
/// reaches of some ten pixels this takes a fraction of what a Fourier transform does; more so with wide
/// registers.)
std::vector<float> slid(const std::vector<float>& window, int wide, const std::vector<float>& kernel,
                        int kernelWide, int kernelHigh) {
  const Sliding sliding{window.data(), wide, kernel.data(), kernelWide, kernelHigh};
  const int across = wide - kernelWide + 1;
  const int down = static_cast<int>(window.size()) / wide - kernelHigh + 1;
  std::vector<float> out(static_cast<std::size_t>(across) * static_cast<std::size_t>(down), 0.0F);
  for (int y = 0; y < down; ++y) {
    const float* from = sliding.window + y * wide;
    float* to = out.data() + y * across;
    if (across < kBlock) sumFew(sliding, from, to, across);
    for (int block = 0; across >= kBlock && block < across; block += kBlock) {
      const int first = std::min(block, across - kBlock);  // the last one may overlap
      sumBlock(sliding, from + first, to + first);
    }
  }
  return out;
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

PatchTemplate::PatchTemplate(const cv::Mat& grey, const PatchPose& pose, int radius_px)
    : radius_px_(radius_px), leastContrast_(kSmallestNorm), weights_(gaussianWeights(radius_px)) {
  const std::vector<float> patch = cutPatch(grey, pose, radius_px);
  const float norm = std::max(contrastOf(patch), leastContrast_);
  leastContrast_ = std::max(leastContrast_, static_cast<float>(kLeastOwnContrast) * norm);
  look_ = normalised(patch);
  for (std::size_t i = 0; i < look_.size(); ++i) weightedLook_.push_back(look_[i] * weights_[i]);

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
  const float norm = std::max(contrastOf(patch), leastContrast_);
  std::vector<float> out(patch.size());
  for (std::size_t i = 0; i < patch.size(); ++i) out[i] = (patch[i] - mean) / norm;
  return out;
}

double PatchTemplate::correlation(const std::vector<float>& patch) const {
  const std::vector<float> other = normalised(patch);
  float sum = 0.0F;
  for (std::size_t i = 0; i < other.size(); ++i) sum += weightedLook_[i] * other[i];
  return static_cast<double>(sum);
}

PatchSurroundings::PatchSurroundings(const cv::Mat& grey, const PatchPose& pose, int radius_px, int reach_px)
    : reach_px_(reach_px), wide_(2 * (radius_px + reach_px) + 1) {
  samples_ = cutPatch(grey, pose, radius_px + reach_px);
  // About one grey, so that the squares keep their digits.
  for (float& s : samples_) s -= 128.0F;
  std::vector<float> squares = samples_;
  for (float& s : squares) s *= s;
  const std::vector<float> along = alongOneAxis(radius_px);
  const int side = 2 * radius_px + 1;
  // The weights are a Gaussian, which goes row by row and column by column.
  const auto weighted = [&](const std::vector<float>& window) {
    return slid(slid(window, wide_, along, side, 1), wide_ - side + 1, along, 1, side);
  };
  const std::vector<float> mean = weighted(samples_);
  power_ = weighted(squares);
  for (std::size_t i = 0; i < power_.size(); ++i) power_[i] -= mean[i] * mean[i];
}

std::vector<PatchTemplate::Peak> PatchTemplate::search(const PatchSurroundings& around,
                                                       std::size_t most) const {
  const int side = 2 * radius_px_ + 1;
  const int reach_px = around.reach_px_;
  const int steps = 2 * reach_px + 1;
  std::vector<float> scores = slid(around.samples_, around.wide_, weightedLook_, side, side);
  for (std::size_t i = 0; i < scores.size(); ++i)
    scores[i] /= std::sqrt(std::max(around.power_[i], leastContrast_ * leastContrast_));

  const auto at = [&](int x, int y) { return scores[static_cast<std::size_t>(y * steps + x)]; };
  std::vector<Peak> peaks;
  for (int y = 0; y < steps; ++y) {
    for (int x = 0; x < steps; ++x) {
      bool highest = true;
      for (int v = std::max(y - 1, 0); v <= std::min(y + 1, steps - 1); ++v) {
        for (int u = std::max(x - 1, 0); u <= std::min(x + 1, steps - 1); ++u)
          highest &= at(u, v) <= at(x, y);
      }
      if (highest) peaks.push_back({x - reach_px, y - reach_px, static_cast<double>(at(x, y))});
    }
  }
  std::sort(peaks.begin(), peaks.end(), [](const Peak& a, const Peak& b) { return a.score > b.score; });
  if (peaks.size() > most) peaks.resize(most);
  return peaks;
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
