// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/mesh.h"

#include <cmath>
#include <numbers>

namespace fin {
namespace {

using Eigen::Vector3d;

/// Each corner's normal is the mean of its triangles', the larger ones counting for more.
void smoothNormals(Mesh& mesh) {
  for (Mesh::Corner& corner : mesh.corners) corner.normal.setZero();
  for (const auto& [a, b, c] : mesh.triangles) {
    const auto at = [&](int i) -> Mesh::Corner& { return mesh.corners[static_cast<std::size_t>(i)]; };
    const Vector3d face = (at(b).rest - at(a).rest).cross(at(c).rest - at(a).rest);
    for (const int i : {a, b, c}) at(i).normal += face;
  }
  for (Mesh::Corner& corner : mesh.corners) {
    if (corner.normal.norm() > 0.0) corner.normal.normalize();
  }
}

/// The direction of the path at a ring.
Vector3d directionAt(const std::vector<Ring>& rings, std::size_t i) {
  const std::size_t before = i > 0 ? i - 1 : 0;
  const std::size_t after = std::min(i + 1, rings.size() - 1);
  return (rings[after].centre - rings[before].centre).normalized();
}

}  // namespace

Mesh lofted(const std::vector<Ring>& rings, int sides) {
  Mesh mesh;
  for (std::size_t i = 0; i < rings.size(); ++i) {
    const Ring& ring = rings[i];
    const Vector3d along = directionAt(rings, i);
    // Towards the tail is −x: the back is then +y.
    const Vector3d up(along.y(), -along.x(), 0.0);
    for (int side = 0; side < sides; ++side) {
      const double angle = 2.0 * std::numbers::pi * side / sides;
      const double high = std::cos(angle);
      mesh.corners.push_back({ring.centre + up * (high * (high > 0.0 ? ring.up : ring.down)) +
                                  Vector3d::UnitZ() * (ring.half * std::sin(angle)),
                              Vector3d::Zero()});
    }
  }
  const auto corner = [sides](std::size_t ring, int side) {
    return static_cast<int>(ring) * sides + side % sides;
  };
  for (std::size_t i = 0; i + 1 < rings.size(); ++i) {
    for (int side = 0; side < sides; ++side) {
      mesh.triangles.push_back({corner(i, side), corner(i + 1, side), corner(i, side + 1)});
      mesh.triangles.push_back({corner(i, side + 1), corner(i + 1, side), corner(i + 1, side + 1)});
    }
  }
  for (const std::size_t end : {std::size_t{0}, rings.size() - 1}) {
    const int middle = static_cast<int>(mesh.corners.size());
    mesh.corners.push_back({rings[end].centre, Vector3d::Zero()});
    for (int side = 0; side < sides; ++side) {
      if (end == 0)
        mesh.triangles.push_back({middle, corner(end, side), corner(end, side + 1)});
      else
        mesh.triangles.push_back({middle, corner(end, side + 1), corner(end, side)});
    }
  }
  smoothNormals(mesh);
  return mesh;
}

Mesh wire(const std::vector<Vector3d>& path, double radius_mm, int sides) {
  std::vector<Ring> rings;
  for (const Vector3d& at : path) rings.push_back({at, radius_mm, radius_mm, radius_mm});
  return lofted(rings, sides);
}

Mesh moved(Mesh mesh, const Eigen::Isometry3d& by) {
  for (Mesh::Corner& corner : mesh.corners) {
    corner.rest = by * corner.rest;
    corner.normal = by.linear() * corner.normal;
  }
  return mesh;
}

}  // namespace fin
