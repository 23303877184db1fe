// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>
#include <variant>
#include <vector>

#include "core/units/quantity.h"

namespace fin {

/// Where the body is and how it lies. Tank axes: x along the pull, y up, z to the lure's right; mm and
/// radians. Yaw turns the nose to the lure's left, pitch lowers it, roll leans the back to the right. Kick is
/// the angle of a soft tail against the body, to the left.
struct BodyPose {
  Eigen::Vector3d centre_mm = Eigen::Vector3d::Zero();
  double yaw_rad = 0.0;
  double pitch_rad = 0.0;
  double roll_rad = 0.0;
  double kick_rad = 0.0;
};

/// An even pull with a wobble. `lopsided` adds that share of second harmonic; `unevenness` is the standard
/// deviation of single cycle lengths as a share of the mean one.
struct StraightPull {
  double speed_mm_s = 250.0;
  double start_mm = -600.0;  ///< along, of the body's centre at time 0
  double height_mm = 0.0;    ///< of the path over the middle of the picture
  double wobble_Hz = 5.0;
  double wobble_deg = 30.0;  ///< peak to peak
  double roll_deg = 0.0;     ///< peak to peak, in step with the wobble
  double list_deg = 0.0;
  double kick_deg = 0.0;  ///< of a soft tail, peak to peak
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
  double kick_deg = 0.0;
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
  unsigned seed = 1;
};

using Motion = std::variant<StraightPull, Sink, Jerks>;

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

  Motion motion_;
  std::vector<double> cycleStarts_s_;  ///< of a StraightPull, rising from before time 0
  struct Twitch {
    double start_s = 0.0;
    double advance_mm = 0.0;
  };
  std::vector<Twitch> twitches_;  ///< of Jerks
};

}  // namespace fin
