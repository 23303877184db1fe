// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/body_shape.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

constexpr double kBeyondEnds = 0.35;  ///< body lengths that a shape reaches past either end
constexpr double kAside = 0.4;
constexpr float kTells = 0.15F;  ///< of a shape: less is as good as nothing
constexpr double kLooksIt = 0.2;
constexpr float kBody = 0.9F;
constexpr float kNotBody = -0.7F;
constexpr std::size_t kSome = 900;
constexpr std::size_t kFew = 220;
constexpr int kStepsQuick = 8;
constexpr int kStepsThorough = 14;
constexpr double kStill_px = 0.01;
constexpr double kMostDamping = 1e3;
constexpr double kFarthestStep_px = 4.0;
constexpr double kShortest = 0.12;  ///< of its length that a body may be seen shortened to
constexpr double kLongest = 1.35;

/// A plane between pixels; nothing past the edge.
float between(const cv::Mat& m, float x, float y) {
  const float fx0 = std::floor(x);
  const float fy0 = std::floor(y);
  const int x0 = static_cast<int>(fx0);
  const int y0 = static_cast<int>(fy0);
  if (x0 < 0 || y0 < 0 || x0 + 1 >= m.cols || y0 + 1 >= m.rows) return 0.0F;
  const float fx = x - fx0;
  const float fy = y - fy0;
  const auto* a = m.ptr<float>(y0) + x0;
  const auto* b = m.ptr<float>(y0 + 1) + x0;
  return (1.0F - fy) * ((1.0F - fx) * a[0] + fx * a[1]) + fy * ((1.0F - fx) * b[0] + fx * b[1]);
}

/// A pose as what laying a shape onto a picture needs.
struct Laid {
  float tailX, tailY, axisX, axisY, acrossX, acrossY;

  Laid(const AxisPose& pose, cv::Point corner) {
    const double along = std::max(pose.length_px(), 1e-6);
    tailX = static_cast<float>(pose.tail.x_px - corner.x);
    tailY = static_cast<float>(pose.tail.y_px - corner.y);
    axisX = static_cast<float>(pose.axis().x_px);
    axisY = static_cast<float>(pose.axis().y_px);
    acrossX = static_cast<float>(-pose.axis().y_px / along);
    acrossY = static_cast<float>(pose.axis().x_px / along);
  }
  [[nodiscard]] float x(float u, float v) const { return tailX + u * axisX + v * acrossX; }
  [[nodiscard]] float y(float u, float v) const { return tailY + u * axisY + v * acrossY; }
};

/// Evidence in which what hangs together with the axis is the body, and all else is not.
cv::Mat cleaned(const BodyView& view, const AxisPose& pose) {
  const auto place = [&view](PixelPoint p) {
    return cv::Point(static_cast<int>(std::lround(p.x_px)), static_cast<int>(std::lround(p.y_px))) -
           view.corner;
  };
  cv::Mat looksIt = view.evidence > kLooksIt;
  cv::line(looksIt, place(pose.nose), place(pose.tail), cv::Scalar(255), 2);
  cv::morphologyEx(looksIt, looksIt, cv::MORPH_OPEN, cv::getStructuringElement(cv::MORPH_ELLIPSE, {3, 3}));
  cv::Mat labels;
  cv::connectedComponents(looksIt, labels, 8, CV_32S);
  const int own = labels.at<int>(place(pose.middle()));
  cv::Mat out(view.evidence.size(), CV_32FC1, cv::Scalar(kNotBody));
  if (own > 0) out.setTo(kBody, labels == own);
  cv::blur(out, out, cv::Size(3, 3));
  return out;
}

}  // namespace

BodyView BodyView::part(const cv::Rect& box) const {
  const cv::Rect here = box - corner;
  BodyView out{box.tl(), evidence(here), {}};
  for (std::size_t k = 0; k < look.size(); ++k) out.look[k] = look[k](here);
  return out;
}

BodyShape::BodyShape(const BodyView& view, const AxisPose& pose)
    : length_px_(pose.length_px()),
      rows_(2 * static_cast<int>(std::ceil(kAside * length_px_)) + 1),
      columns_(static_cast<int>(std::ceil((1.0 + 2.0 * kBeyondEnds) * length_px_)) + 1) {
  for (cv::Mat& plane : sum_) plane = cv::Mat::zeros(rows_, columns_, CV_32FC1);
  BodyView clean = view;
  clean.evidence = cleaned(view, pose);
  add(clean, pose);
  for (std::size_t k = 0; k < kPlanes; ++k) first_[k] = sum_[k].clone();
  choose(first_);
}

void BodyShape::add(const BodyView& view, const AxisPose& pose) {
  const Laid laid(pose, view.corner);
  for (int r = 0; r < rows_; ++r) {
    const auto v = static_cast<float>(r - (rows_ - 1) / 2);
    for (int c = 0; c < columns_; ++c) {
      const auto u = static_cast<float>(c / length_px_ - kBeyondEnds);
      const float x = laid.x(u, v);
      const float y = laid.y(u, v);
      sum_[0].at<float>(r, c) += between(view.evidence, x, y);
      for (std::size_t k = 0; k < 3; ++k) sum_[k + 1].at<float>(r, c) += between(view.look[k], x, y);
    }
  }
  ++added_;
}

void BodyShape::average(double firstShare) {
  const int further = added_ - 1;
  if (further > 0) {
    std::array<cv::Mat, kPlanes> mean;
    for (std::size_t k = 0; k < kPlanes; ++k)
      mean[k] = first_[k] * firstShare + (sum_[k] - first_[k]) * ((1.0 - firstShare) / further);
    choose(mean);
  }
  for (std::size_t k = 0; k < kPlanes; ++k) sum_[k] = first_[k].clone();
  added_ = 1;
}

void BodyShape::thinOut(const std::vector<Cell>& all, std::size_t most, std::vector<Cell>& to) const {
  to.clear();
  const double every = std::max(1.0, static_cast<double>(all.size()) / static_cast<double>(most));
  for (double i = 0.0; i < static_cast<double>(all.size()); i += every)
    to.push_back(all[static_cast<std::size_t>(i)]);
}

void BodyShape::choose(const std::array<cv::Mat, kPlanes>& from) {
  std::vector<Cell> telling;
  std::vector<Cell> inner;
  for (int r = 0; r < rows_; ++r) {
    for (int c = 0; c < columns_; ++c) {
      const float shape = from[0].at<float>(r, c);
      if (std::abs(shape) < kTells) continue;
      Cell cell{static_cast<float>(c / length_px_ - kBeyondEnds),
                static_cast<float>(r - (rows_ - 1) / 2),
                shape,
                {}};
      for (std::size_t k = 0; k < 3; ++k) cell.look[k] = from[k + 1].at<float>(r, c);
      telling.push_back(cell);
      if (shape > 0.5F) inner.push_back(cell);
    }
  }
  thinOut(telling, kSome, some_);
  thinOut(telling, kFew, few_);
  thinOut(inner, kFew, inner_);
}

BodyShape::Fit BodyShape::judged(const BodyView& view, const AxisPose& pose) const {
  const Laid laid(pose, view.corner);
  // On the body and beside it, each for itself: most of a shape is not the body.
  std::array<double, 2> sum{};
  std::array<double, 2> most{1e-9, 1e-9};
  for (const Cell& c : some_) {
    const std::size_t on = c.shape > 0.0F ? 0 : 1;
    sum[on] += c.shape * between(view.evidence, laid.x(c.u, c.v), laid.y(c.u, c.v));
    most[on] += std::abs(c.shape);
  }
  const double agreement = std::min(sum[0] / most[0], 0.5 * (sum[0] / most[0] + sum[1] / most[1]));
  double likeness = 0.0;
  for (std::size_t k = 0; k < 3; ++k) {
    double n = 0.0, a = 0.0, b = 0.0, aa = 1e-9, bb = 1e-9, ab = 0.0;
    for (const Cell& c : inner_) {
      const double seen = between(view.look[k], laid.x(c.u, c.v), laid.y(c.u, c.v));
      n += 1.0;
      a += c.look[k];
      b += seen;
      aa += c.look[k] * c.look[k];
      bb += seen * seen;
      ab += c.look[k] * seen;
    }
    if (n < 10.0) continue;
    const double spread = std::max(aa - a * a / n, 1e-6 * n) * std::max(bb - b * b / n, 1e-6 * n);
    likeness += (ab - a * b / n) / std::sqrt(spread) / 3.0;
  }
  return {pose, agreement, likeness};
}

/// The sum of squares that a pose is found by: what is left over between evidence and shape, and of the
/// length from its usual one.
class BodyShape::Misfit {
 public:
  Misfit(const BodyView& view, const std::vector<Cell>& cells, double usualLength_px, double hold)
      : view_(view), cells_(cells), usual_px_(usualLength_px), hold_(hold) {}

  [[nodiscard]] double at(const AxisPose& pose) const {
    const Laid laid(pose, view_.corner);
    double sum = 0.0;
    for (const Cell& c : cells_) {
      const float off = between(view_.evidence, laid.x(c.u, c.v), laid.y(c.u, c.v)) - c.shape;
      sum += off * off;
    }
    const double longer = pose.length_px() - usual_px_;
    return sum + hold_ * longer * longer;
  }

  /// By nose x, y, tail x, y.
  struct Equations {
    Eigen::Matrix4d normal = Eigen::Matrix4d::Zero();
    Eigen::Vector4d gradient = Eigen::Vector4d::Zero();

    void add(const Eigen::Vector4d& slope, double off, double weight) {
      normal.noalias() += weight * slope * slope.transpose();
      gradient.noalias() += weight * off * slope;
    }
  };
  [[nodiscard]] Equations equationsAt(const AxisPose& pose) const {
    const cv::Mat& seen = view_.evidence;
    const Laid laid(pose, view_.corner);
    const double along = std::max(pose.length_px(), 1e-6);
    const double ax = laid.axisX / along;
    const double ay = laid.axisY / along;
    Equations out;
    for (const Cell& c : cells_) {
      const float x = laid.x(c.u, c.v);
      const float y = laid.y(c.u, c.v);
      const double gx = 0.5F * (between(seen, x + 1.0F, y) - between(seen, x - 1.0F, y));
      const double gy = 0.5F * (between(seen, x, y + 1.0F) - between(seen, x, y - 1.0F));
      // Turning by the ends' difference across moves a place aside along the axis.
      const double turn = -(c.v / along) * (gx * ax + gy * ay);
      const double nx = c.u * gx + turn * laid.acrossX;
      const double ny = c.u * gy + turn * laid.acrossY;
      out.add({nx, ny, gx - nx, gy - ny}, between(seen, x, y) - c.shape, 1.0);
    }
    out.add({ax, ay, -ax, -ay}, along - usual_px_, hold_);
    return out;
  }

 private:
  const BodyView& view_;
  const std::vector<Cell>& cells_;
  double usual_px_;
  double hold_;
};

BodyShape::Fit BodyShape::fitted(const BodyView& view, const AxisPose& from, double usualLength_px,
                                 double held, Care care) const {
  const std::vector<Cell>& cells = care == Care::Quick ? few_ : some_;
  const Misfit misfit(view, cells, usualLength_px,
                      held * static_cast<double>(cells.size()) / std::max(length_px_, 1.0));
  AxisPose pose = from;
  double cost = misfit.at(pose);
  double damping = 1e-3;
  const int steps = care == Care::Quick ? kStepsQuick : kStepsThorough;
  for (int step = 0; step < steps; ++step) {
    const Misfit::Equations equations = misfit.equationsAt(pose);
    bool better = false;
    Eigen::Vector4d move = Eigen::Vector4d::Zero();
    while (!better && damping < kMostDamping) {
      Eigen::Matrix4d damped = equations.normal;
      damped.diagonal() *= 1.0 + damping;
      damped.diagonal().array() += 1e-6;
      move = damped.ldlt().solve(-equations.gradient);
      const double most = move.cwiseAbs().maxCoeff();
      if (most > kFarthestStep_px) move *= kFarthestStep_px / most;
      const AxisPose next{pose.nose + PixelPoint{move[0], move[1]}, pose.tail + PixelPoint{move[2], move[3]}};
      const double there = misfit.at(next);
      const double shown = next.length_px() / length_px_;
      better = there < cost && shown > kShortest && shown < kLongest;
      if (better) {
        pose = next;
        cost = there;
      }
      damping = better ? std::max(damping * 0.3, 1e-6) : damping * 10.0;
    }
    if (!better || move.cwiseAbs().maxCoeff() < kStill_px) break;
  }
  return judged(view, pose);
}

cv::Rect BodyShape::reach(const AxisPose& pose, double margin_px) const {
  const double around = (0.5 + kBeyondEnds) * length_px_ + margin_px;
  const PixelPoint m = pose.middle();
  const int x = static_cast<int>(std::floor(m.x_px - around));
  const int y = static_cast<int>(std::floor(m.y_px - around));
  const int size = static_cast<int>(std::ceil(2.0 * around)) + 2;
  return {x, y, size, size};
}

}  // namespace fin
