// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>
#include <variant>
#include <vector>

#include "core/units/quantity.h"

namespace fin {

/// Where the body is and how it lies. Tank axes: x along the pull, y up, z to the lure's right; mm and
/// radians. Yaw turns the nose to the lure's left, pitch lowers it, roll leans the back to the right. Kick is
/// the angle of a soft tail against the body, to the left, and flick the same, upwards; flare, how far a
/// skirt's outer strands stand off the body's axis; blade, how far a blade behind the tail has swung to the
/// left.
struct BodyPose {
  Eigen::Vector3d centre_mm = Eigen::Vector3d::Zero();
  double yaw_rad = 0.0;
  double pitch_rad = 0.0;
  double roll_rad = 0.0;
  double kick_rad = 0.0;
  double flick_rad = 0.0;
  double flare_rad = 0.0;
  double blade_rad = 0.0;
};

/// An even pull with a wobble, along a course that may leave the pull, to the lure's right. `lopsided` adds
/// that share of second harmonic; `unevenness` is the standard deviation of single cycle lengths as a share
/// of the mean one.
struct StraightPull {
  double speed_mm_s = 250.0;
  double start_mm = -600.0;  ///< along, of the body's centre at time 0
  double height_mm = 0.0;    ///< of the path over the middle of the picture
  double wobble_Hz = 5.0;
  double wobble_deg = 30.0;  ///< peak to peak
  double roll_deg = 0.0;     ///< peak to peak, in step with the wobble
  double list_deg = 0.0;
  double kick_deg = 0.0;   ///< of a soft tail, peak to peak
  double blade_Hz = 0.0;   ///< a beat of its own; 0: in step with the wobble
  double blade_deg = 0.0;  ///< peak to peak
  double course_deg = 0.0;
  double lopsided = 0.0;
  double unevenness = 0.0;
  unsigned seed = 1;
};

/// A fall from rest: v(t) = v∞ tanh(t/τ), sliding along its nose by `glide`, until the bottom.
struct Sink {
  double speed_mm_s = 200.0;
  double timeConstant_s = 0.15;
  double release_s = 0.2;
  double from_mm = 300.0;  ///< height of release over the middle of the picture
  double bottom_mm = -320.0;
  double aside_mm = -100.0;  ///< along, at release
  double glide = 0.0;        ///< along over down, forwards positive
  double attitude_deg = 20.0;
  double rock_Hz = 1.5;
  double rock_deg = 0.0;  ///< peak to peak
  double kick_Hz = 3.0;
  double kick_deg = 0.0;  ///< up and down, as the side view shows it
};

/// A bait that is jerked forward, springs back and waits, again and again. Half cosines to and fro.
struct Jerks {
  int count = 4;
  double first_s = 0.4;
  double every_s = 1.1;      ///< from start to start, on the mean
  double uneven_s = 0.0;     ///< standard deviation of that
  double start_mm = -250.0;  ///< along, at rest before the first
  double height_mm = 60.0;   ///< over the middle of the picture, at time 0
  double advance_mm = 90.0;
  double advanceSpread_mm = 0.0;  ///< standard deviation from twitch to twitch
  double back_mm = 20.0;
  double push_s = 0.12;
  double back_s = 0.30;
  double drift_mm_s = 0.0;  ///< upwards, all along
  double attitude_deg = 0.0;
  double swing_deg = 0.0;  ///< between one heading and the next, to the left and to the right by turns
  unsigned seed = 1;
};

/// A bait that comes down on its nose, stands there, sways, and lays itself down in the end.
struct Stand {
  double lands_s = 0.5;
  double speed_mm_s = 160.0;  ///< at which it comes down
  double along_mm = 0.0;      ///< of its nose
  double bottom_mm = -150.0;
  double body_mm = 70.0;  ///< nose to tail
  double angle_deg = 60.0;
  double sway_deg = 3.0;  ///< peak to peak
  double sway_Hz = 0.6;
  double tips_s = 100.0;  ///< when it begins to lie down
  double tipping_s = 0.5;
  double lying_deg = 6.0;
};

/// A bait that is hopped off the bottom and falls back, again and again: half cosines up, v(t) = v∞ tanh(t/τ)
/// down. Its tail kicks on the way down.
struct Hops {
  int count = 3;
  double first_s = 0.4;
  double every_s = 1.3;      ///< from start to start
  double start_mm = -200.0;  ///< along, before the first
  double bottom_mm = -60.0;  ///< over the middle of the picture
  double height_mm = 120.0;
  double heightSpread_mm = 0.0;  ///< standard deviation from hop to hop
  double ahead_mm = 60.0;        ///< along, with every hop
  double lift_s = 0.22;
  double speed_mm_s = 180.0;  ///< of the fall, once steady
  double timeConstant_s = 0.06;
  double attitude_deg = 15.0;
  double kick_Hz = 6.0;
  double kick_deg = 40.0;  ///< peak to peak, up and down
  double liftKick_Hz = 0.0;
  double liftKick_deg = 0.0;  ///< the same on the way up
  unsigned seed = 1;
};

/// A skirted bait that is pulled and stopped: its strands open at the stop and settle by halves.
struct SkirtStop {
  double speed_mm_s = 220.0;
  double start_mm = -300.0;  ///< along, at time 0
  double height_mm = 0.0;    ///< over the middle of the picture
  double stop_s = 1.2;       ///< when it begins to slow down
  double slowing_s = 0.12;
  double moving_deg = 7.0;  ///< flare while moving
  double peak_deg = 40.0;
  double rest_deg = 24.0;
  double opening_s = 0.15;  ///< from the stop to the peak
  double halfLife_s = 0.35;
  double quiver_deg = 0.0;  ///< at rest, peak to peak
  double quiver_Hz = 5.0;
};

/// One clip of several things: twitched, then pulled from where it lies, then let go. Places that follow from
/// what came before are not looked at.
struct TwitchPullFall {
  Jerks jerks;
  double pullFrom_s = 4.0;
  StraightPull pull;
  double fallFrom_s = 6.0;
  Sink sink;
};

using Motion = std::variant<StraightPull, Sink, Jerks, Hops, SkirtStop, Stand, TwitchPullFall>;

/// A motion with what it draws at random already drawn, so that any instant can be asked in any order.
class PlayedMotion {
 public:
  explicit PlayedMotion(Motion motion);
  [[nodiscard]] BodyPose at(Seconds time) const;
  [[nodiscard]] const Motion& motion() const { return motion_; }

 private:
  [[nodiscard]] double cycles(double time_s) const;
  [[nodiscard]] BodyPose pose(const StraightPull& pull, double time_s) const;
  [[nodiscard]] static BodyPose pose(const Sink& sink, double time_s);
  [[nodiscard]] BodyPose pose(const Jerks& jerks, double time_s) const;
  [[nodiscard]] BodyPose pose(const Hops& hops, double time_s) const;
  [[nodiscard]] static BodyPose pose(const SkirtStop& stop, double time_s);
  [[nodiscard]] static BodyPose pose(const Stand& stand, double time_s);
  [[nodiscard]] BodyPose pose(const TwitchPullFall& things, double time_s) const;
  void drawTwitches(const Jerks& jerks);

  Motion motion_;
  std::vector<double> cycleStarts_s_;  ///< of a StraightPull, rising from before time 0
  struct Twitch {
    double start_s = 0.0;
    double reach_mm = 0.0;  ///< advance, or height
  };
  std::vector<Twitch> twitches_;  ///< of Jerks and of Hops
};

}  // namespace fin
