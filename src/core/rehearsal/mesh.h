// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>
#include <Eigen/Geometry>
#include <array>
#include <vector>

namespace fin {

/// A closed surface of triangles, in mm. `rest` is where a corner lies in the unposed shape: what its skin is
/// painted by.
struct Mesh {
  struct Corner {
    Eigen::Vector3d rest;
    Eigen::Vector3d normal;  ///< outwards, of length 1
  };
  std::vector<Corner> corners;
  std::vector<std::array<int, 3>> triangles;
};

/// One cross-section of a body: an ellipse whose upper and lower halves may differ. It stands square to the
/// path through its neighbours' centres; `half` reaches to either side (z), `up` and `down` along the path's
/// normal in the plane of x and y, which is the back where the path runs from nose to tail.
struct Ring {
  Eigen::Vector3d centre;
  double up = 1.0;
  double down = 1.0;
  double half = 1.0;
};

/// The skin stretched over cross-sections, closed at both ends. Paths lie in a plane of constant z and run
/// from the nose to the tail. At least two rings.
Mesh lofted(const std::vector<Ring>& rings, int sides);

/// A straight path along x: one ring for each share of the way from `from_mm` to `to_mm`.
template <class Section>
std::vector<Ring> ringsAlong(double from_mm, double to_mm, int count, Section section) {
  std::vector<Ring> out;
  for (int i = 0; i <= count; ++i) {
    const double share = static_cast<double>(i) / count;
    Ring ring = section(share);
    ring.centre.x() += from_mm + share * (to_mm - from_mm);
    out.push_back(ring);
  }
  return out;
}

/// A wire of even thickness through these places.
Mesh wire(const std::vector<Eigen::Vector3d>& path, double radius_mm, int sides);

Mesh moved(Mesh mesh, const Eigen::Isometry3d& by);

}  // namespace fin
