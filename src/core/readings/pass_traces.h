// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>

#include "core/calibration/tank_frame.h"
#include "core/readings/reading.h"
#include "core/signals/series.h"
#include "core/tracking/track.h"

namespace fin {

/// Which way the lure is pulled across the picture.
enum class Pull { Right, Left, Up, Down };
/// In the picture, of length 1.
PixelPoint directionOf(Pull pull);

/// How a view is laid into the lure's plane.
struct Geometry {
  View view = View::Side;
  std::optional<Pull> pull;  ///< found from the track when not given
  std::optional<Scale> scale;
  Rectification picture;
  std::optional<PixelLine> plumb;      ///< as seen
  std::optional<PixelLine> waterline;  ///< as seen
  std::optional<PixelLine> bottom;     ///< as seen
  /// Of what lies behind the lure, where the camera moves with it: the ruler's own plane.
  std::optional<Scale> backgroundScale;
};

/// The motion of the body in the lure's plane against true time: frames in which nose and tail are seen.
/// Lengths in mm with a scale, in pixels without one. Angles in degrees, unwrapped.
struct PassTraces {
  Series alongCentre;  ///< body centre, midway between nose and tail, along the pull
  Series upCentre;     ///< the same, upwards (top view: across)
  Series alongNose;    ///< the nose's, also where the tail is not seen
  Series acrossTail;   ///< tail's v: across in a top view
  Series axis;         ///< angle of tail→nose from the pull towards v
  Series bodyAlong;    ///< nose minus tail along the pull
  Series bodyUp;       ///< nose minus tail upwards
  Series kick;         ///< angle of tail→tip against nose→tail, where the tip is seen too
  Series depth;        ///< of the body's centre under the waterline, where one is marked
  Series overBottom;   ///< of the same over the bottom, where one is marked
  Series bend;         ///< angle of nose→mid against mid→tail, where the mid mark is seen too
  Series blade;        ///< angle of tail→blade against nose→tail, where the blade is seen too
  bool inMillimetres = false;
  bool movingCamera = false;
  bool againstTank = true;      ///< places are the tank's: the camera stands, or its background was followed
  double backgroundSeen = 1.0;  ///< share of the frames in which it was
  double scaleRelativeU95 = 0.0;
  double unitPerPixel = 1.0;
  double bodyLength = 0.0;   ///< median distance of nose and tail
  double tipLength = 0.0;    ///< and of tail and tip
  double bladeLength = 0.0;  ///< and of tail and blade
  double frameRate_Hz = 0.0;

  [[nodiscard]] std::size_t frames() const { return axis.size(); }
};

/// `time_s` holds the true time of every frame of the track. Without both nose and tail the traces are empty.
/// Straight geometry, exact but for the marks: what those are unsure by is markPlaceU95 and kMarkMoveU95.
/// Pure; on any thread.
PassTraces traceBody(const Track& track, std::span<const double> time_s, const Geometry& geometry);

/// How far a followed mark may be off its true place in the long run (95 %): placing by hand, and the slow
/// errors of following that no averaging removes. They are of half a pixel, and grow with a body that is long
/// in the picture: measured as 0.50, 0.43, 0.42, 0.52 and 0.94 px on bodies of 50, 90, 150, 220 and 300 px
/// (bench/mark_errors, rehearsal footage as coded by a camera, 12 marks each).
Pixels markPlaceU95(Pixels bodyLength);
/// The same of the difference between two such places (or one place at two times), in the traces' unit.
double placeDifferenceU95(const PassTraces& traces);

/// How far the way of a followed mark from one pose to another may be off (95 %), as from one end of a swing
/// to the other: what was placed wrongly falls out, what following gets wrong by the pose does not (0.2 to
/// 0.6 px in bench/mark_errors).
constexpr Pixels kMarkMoveU95{0.8};

/// How far a camera levelled by eye, or a drawn plumb line, may lean (95 %).
constexpr double kPlumbU95_deg = 0.5;

}  // namespace fin
