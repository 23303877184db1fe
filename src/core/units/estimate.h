// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace fin {

enum class Grade { Good, Fair, Poor };

/// Half-width of the 95 % interval of a normal spread, in standard deviations.
inline constexpr double kNormal95 = 1.959964;

/// What a part of an uncertainty comes from.
enum class UncertaintySource {
  Scatter,       ///< of the places about the fit, or of the single cycles and events
  Cycles,        ///< their unequal length
  Scale,         ///< the known length and its plane
  Marks,         ///< how well a mark is placed
  OutlineEdge,   ///< of the outline
  Plumb,         ///< how level the camera stands
  FrameTime,     ///< the time from frame to frame
  ViewingAngle,  ///< the angle under which the camera sees the lure
  Background,    ///< followed behind the lure
};

/// A part of an uncertainty, as a half-width of its own.
struct UncertaintyPart {
  UncertaintySource source = UncertaintySource::Scatter;
  double u95 = 0.0;
};

/// The half-width of parts that know nothing of each other.
inline double inQuadrature(const std::vector<UncertaintyPart>& parts) {
  double squares = 0.0;
  for (const UncertaintyPart& part : parts) squares += part.u95 * part.u95;
  return std::sqrt(squares);
}

/// A measured number: never a bare double. u95 is the half-width of its 95 % interval, in the same unit;
/// n counts the cycles, events or frames behind it.
struct Estimate {
  double value = 0.0;
  double u95 = 0.0;
  double n = 0.0;
  Grade grade = Grade::Good;
  std::vector<std::string> notes = {};
  std::vector<UncertaintyPart> parts = {};  ///< of u95, where they are told apart

  /// Sets u95 by its parts.
  void setUncertainty(std::vector<UncertaintyPart> sources) {
    parts = std::move(sources);
    u95 = inQuadrature(parts);
  }
  void alsoUnsureBy(UncertaintyPart more) {
    parts.push_back(more);
    u95 = inQuadrature(parts);
  }
  /// Times a number that is certain.
  void scale(double factor) {
    value *= factor;
    u95 *= std::abs(factor);
    for (UncertaintyPart& part : parts) part.u95 *= std::abs(factor);
  }
};

}  // namespace fin
