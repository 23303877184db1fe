// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <compare>
#include <numbers>

namespace fin {

/// A number with its unit in its type, so that seconds and millimetres cannot be mixed up. The number
/// goes in by the explicit constructor and comes out by value(); arithmetic stays within one unit.
template <class Unit>
class Quantity {
 public:
  constexpr Quantity() = default;
  constexpr explicit Quantity(double value) : value_(value) {}

  [[nodiscard]] constexpr double value() const { return value_; }

  friend constexpr Quantity operator+(Quantity a, Quantity b) { return Quantity(a.value_ + b.value_); }
  friend constexpr Quantity operator-(Quantity a, Quantity b) { return Quantity(a.value_ - b.value_); }
  friend constexpr Quantity operator*(Quantity a, double k) { return Quantity(a.value_ * k); }
  friend constexpr double operator/(Quantity a, Quantity b) { return a.value_ / b.value_; }
  friend constexpr auto operator<=>(Quantity, Quantity) = default;

 private:
  double value_ = 0.0;
};

using Seconds = Quantity<struct SecondUnit>;
using Hertz = Quantity<struct HertzUnit>;
using Millimetres = Quantity<struct MillimetreUnit>;
using Pixels = Quantity<struct PixelUnit>;
using Celsius = Quantity<struct CelsiusUnit>;
using GramsPerKilogram = Quantity<struct GramPerKilogramUnit>;  ///< of salt in water
using Kilograms = Quantity<struct KilogramUnit>;
using Grams = Quantity<struct GramUnit>;
using CubicMetres = Quantity<struct CubicMetreUnit>;
using KilogramsPerCubicMetre = Quantity<struct DensityUnit>;
using MillimetresPerSecond = Quantity<struct SpeedUnit>;

constexpr double kDegreesPerRadian = 180.0 / std::numbers::pi;

}  // namespace fin
