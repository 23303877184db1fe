// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/lure_painter.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "core/rehearsal/caustics.h"

namespace fin {
namespace {

using Eigen::Vector3d;

constexpr int kSubsamples = 2;  ///< a pixel's side
constexpr double kCausticLine_mm = 75.0;
constexpr double kGlint = 175.0;
constexpr double kNarrow = 26.0;  ///< a glint's exponent
constexpr double kVeilShare = 0.07;
constexpr Colour kVeilColour{92.0, 146.0, 158.0};

/// What covers a sample: the nearest triangle, and where in it.
struct Cover {
  double depth_mm = std::numeric_limits<double>::max();
  int part = -1;
  int triangle = 0;
  double second = 0.0;  ///< weight of the triangle's second corner
  double third = 0.0;
};

/// Samples in a box of the picture, row by row.
class Samples {
 public:
  explicit Samples(const cv::Rect& box)
      : box_(box),
        covers_(static_cast<std::size_t>(box.width * kSubsamples) *
                static_cast<std::size_t>(box.height * kSubsamples)) {}

  [[nodiscard]] int columns() const { return box_.width * kSubsamples; }
  [[nodiscard]] int rows() const { return box_.height * kSubsamples; }
  [[nodiscard]] Cover& at(int row, int column) {
    return covers_[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns()) +
                   static_cast<std::size_t>(column)];
  }
  /// On the scale of samples. The middle of a picture's first pixel is at 0.
  [[nodiscard]] double columnOf(double x_px) const { return (x_px + 0.5 - box_.x) * kSubsamples - 0.5; }
  [[nodiscard]] double rowOf(double y_px) const { return (y_px + 0.5 - box_.y) * kSubsamples - 0.5; }

 private:
  cv::Rect box_;
  std::vector<Cover> covers_;
};

void coverBy(Samples& samples, int part, const Mesh& mesh,
             const std::vector<LurePainter::Seen::Corner>& corners) {
  for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
    const auto& triangle = mesh.triangles[t];
    std::array<double, 3> x{};
    std::array<double, 3> y{};
    std::array<double, 3> depth{};
    for (std::size_t i = 0; i < 3; ++i) {
      const auto& corner = corners[static_cast<std::size_t>(triangle[i])];
      x[i] = samples.columnOf(corner.at.x_px);
      y[i] = samples.rowOf(corner.at.y_px);
      depth[i] = corner.depth_mm;
    }
    const double area = (x[1] - x[0]) * (y[2] - y[0]) - (x[2] - x[0]) * (y[1] - y[0]);
    if (std::abs(area) < 1e-9) continue;
    const auto [left, right] = std::minmax({x[0], x[1], x[2]});
    const auto [top, bottom] = std::minmax({y[0], y[1], y[2]});
    for (int row = std::max(static_cast<int>(std::ceil(top)), 0);
         row <= std::min(static_cast<int>(std::floor(bottom)), samples.rows() - 1); ++row) {
      for (int column = std::max(static_cast<int>(std::ceil(left)), 0);
           column <= std::min(static_cast<int>(std::floor(right)), samples.columns() - 1); ++column) {
        const double second = ((column - x[0]) * (y[2] - y[0]) - (x[2] - x[0]) * (row - y[0])) / area;
        const double third = ((x[1] - x[0]) * (row - y[0]) - (column - x[0]) * (y[1] - y[0])) / area;
        if (second < 0.0 || third < 0.0 || second + third > 1.0) continue;
        const double at = depth[0] + second * (depth[1] - depth[0]) + third * (depth[2] - depth[0]);
        Cover& old = samples.at(row, column);
        if (at < old.depth_mm) old = {at, part, static_cast<int>(t), second, third};
      }
    }
  }
}

Colour lightOf(const Shade& shade, const Vector3d& place, const Vector3d& towardsEye,
               const LurePainter::Light& light) {
  static const Vector3d kSun = Vector3d(0.12, 1.0, 0.18).normalized();
  Vector3d normal = shade.normal;
  if (normal.dot(towardsEye) < 0.0) normal = -normal;
  const double above = std::max(normal.dot(kSun), 0.0);
  double fall = 0.36 * above;
  if (light.caustics > 0.0)
    fall *= 1.0 + 2.0 * light.caustics * causticAt(place.x(), place.z(), light.time_s, kCausticLine_mm);
  const double all = 0.56 + fall + 0.14 * normal.dot(towardsEye) + 0.06 * normal.y();
  const double glint =
      kGlint * shade.gloss * std::pow(std::max(normal.dot((kSun + towardsEye).normalized()), 0.0), kNarrow);
  Colour out{};
  for (std::size_t c = 0; c < 3; ++c)
    out[c] =
        (1.0 - kVeilShare) * std::min(all * shade.colour[c] + glint, 255.0) + kVeilShare * kVeilColour[c];
  return out;
}

}  // namespace

LurePainter::Seen LurePainter::seen(const BodyPose& pose, std::optional<double> mirror_mm) const {
  Seen out;
  const auto stands = lure_.stand(pose);
  double left = 1e9;
  double top = 1e9;
  double right = -1e9;
  double bottom = -1e9;
  for (std::size_t p = 0; p < stands.size(); ++p) {
    std::vector<Seen::Corner> corners;
    for (const Mesh::Corner& corner : lure_.parts()[p].mesh.corners) {
      Vector3d place = stands[p] * corner.rest;
      if (mirror_mm) place.y() = 2.0 * *mirror_mm - place.y();
      const PixelPoint at = camera_.project(place);
      left = std::min(left, at.x_px);
      right = std::max(right, at.x_px);
      top = std::min(top, at.y_px);
      bottom = std::max(bottom, at.y_px);
      corners.push_back({at, (camera_.eye() - place).dot(camera_.back()), place});
    }
    out.turns.push_back(stands[p].linear());
    if (mirror_mm) out.turns.back().row(1) *= -1.0;
    out.parts.push_back(std::move(corners));
  }
  const cv::Rect whole(0, 0, camera_.setup().width_px, camera_.setup().height_px);
  out.box =
      cv::Rect(cv::Point(static_cast<int>(std::floor(left)) - 1, static_cast<int>(std::floor(top)) - 1),
               cv::Point(static_cast<int>(std::ceil(right)) + 2, static_cast<int>(std::ceil(bottom)) + 2)) &
      whole;
  return out;
}

void LurePainter::add(cv::Mat& sum, const cv::Point& corner, const Seen& seen, const Light& light,
                      double share) const {
  if (seen.box.empty()) return;
  Samples samples(seen.box);
  for (std::size_t p = 0; p < seen.parts.size(); ++p)
    coverBy(samples, static_cast<int>(p), lure_.parts()[p].mesh, seen.parts[p]);
  const double each = share / (kSubsamples * kSubsamples);
  for (int row = 0; row < samples.rows(); ++row) {
    auto* to = sum.ptr<cv::Vec4f>(seen.box.y - corner.y + row / kSubsamples) + (seen.box.x - corner.x);
    for (int column = 0; column < samples.columns(); ++column) {
      const Cover& covered = samples.at(row, column);
      if (covered.part < 0) continue;
      const auto part = static_cast<std::size_t>(covered.part);
      const ShapedLure::Part& shape = lure_.parts()[part];
      const auto& triangle = shape.mesh.triangles[static_cast<std::size_t>(covered.triangle)];
      const std::array<double, 3> weight{1.0 - covered.second - covered.third, covered.second, covered.third};
      Vector3d rest = Vector3d::Zero();
      Vector3d restNormal = Vector3d::Zero();
      Vector3d place = Vector3d::Zero();
      for (std::size_t i = 0; i < 3; ++i) {
        const auto n = static_cast<std::size_t>(triangle[i]);
        rest += weight[i] * shape.mesh.corners[n].rest;
        restNormal += weight[i] * shape.mesh.corners[n].normal;
        place += weight[i] * seen.parts[part][n].place_mm;
      }
      Shade shade = shadeOf(lure_.build(), shape.skin, rest, restNormal);
      shade.normal = seen.turns[part] * shade.normal;
      const Colour colour = lightOf(shade, place, (camera_.eye() - place).normalized(), light);
      cv::Vec4f& pixel = to[column / kSubsamples];
      for (int c = 0; c < 3; ++c) pixel[c] += static_cast<float>(each * colour[static_cast<std::size_t>(c)]);
      pixel[3] += static_cast<float>(each);
    }
  }
}

}  // namespace fin
