// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/units/result.h"
#include "core/water/water.h"

namespace fin {

/// Camera, tank and lure as they are meant to be. Lengths in mm, times in s.
struct FilmingPlan {
  double air_mm = 0.0;  ///< camera to window; 0 for a camera under water
  double glass_mm = 0.0;
  double water_mm = 1500.0;       ///< window, or camera, to the lure's plane
  double fieldOfView_deg = 60.0;  ///< of the lens in air, across the picture
  int width_px = 1280;
  double captureRate_Hz = 120.0;
  double exposure_s = 1.0 / 500.0;
  double mark_mm = 4.0;           ///< width of the smallest mark
  double rulerOff_mm = 0.0;       ///< how far the ruler hangs from the lure's plane
  double mains_Hz = 50.0;         ///< 0 where daylight or batteries light the water
  double pullSpeed_mm_s = 300.0;  ///< the fastest
  double wobble_Hz = 6.0;         ///< the fastest expected
  double bodyLength_mm = 90.0;
  double fallRate_mm_s = 250.0;  ///< the fastest expected
  double timeConstant_s = 0.2;   ///< of the approach to it
  double steadyPart_mm = 300.0;  ///< of fall that is wanted
  double waterDepth_mm = 900.0;

  friend bool operator==(const FilmingPlan&, const FilmingPlan&) = default;
};

enum class Fitness { Good, Tight, Bad };

/// One thing checked before filming, in words, with what to change.
struct FilmingFinding {
  std::string key;
  double value = 0.0;
  std::string unit;
  Fitness fitness = Fitness::Good;
  std::string verdict;
  std::string change;  ///< empty where nothing needs to
};

/// px/mm, samples a cycle, blur of a mark, cycles in view, error by the ruler's plane, depth for a steady
/// fall, and flicker of mains light. Thresholds: 10 samples a cycle good, 5 the floor, 2.5 aliased; blur a
/// third of a mark; five cycles in view; plane error 1 % good, 3 % the most. Errors: BadRequest that names
/// what cannot be meant.
Result<std::vector<FilmingFinding>> checkFilming(const FilmingPlan& plan, GramsPerKilogram salinity);

}  // namespace fin
