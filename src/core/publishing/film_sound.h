// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/publishing: what is heard of a film's clips.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/calibration/clip_clock.h"
#include "core/footage/clip.h"
#include "core/publishing/film_plan.h"
#include "core/units/job_control.h"

namespace fin::publishing {

constexpr int kFilmSound_Hz = 48000;

/// A clip of a film, open, with its true time.
struct FilmClip {
  std::shared_ptr<const Clip> clip;
  ClipClock clock;
  std::vector<double> time_s;  ///< of every frame, true
};

/// Each pass is heard in turn: the film runs once for each that has sound.
struct FilmSounds {
  std::vector<std::size_t> heard;      ///< passes, in the order in which they are heard
  std::vector<std::vector<float>> of;  ///< by pass: its samples through the film; empty where it is not heard
  std::string says;                    ///< what was done, for the foot of the picture and the end card
};

/// Nothing is heard of a clip without sound, or whose sound does not run at true time. Matched: each is made
/// as loud in its still water as the quietest of them; the softer ones are never turned up, and nothing is
/// clipped. Errors: Unreadable, Cancelled; BadRequest where a still stretch holds no sound at all.
Result<FilmSounds> filmSounds(const FilmScript& script, const FilmPlan& plan,
                              const std::vector<FilmClip>& clips, const JobControl& job);

}  // namespace fin::publishing
