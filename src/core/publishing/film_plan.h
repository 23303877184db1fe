// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string>
#include <vector>

#include "core/publishing/film_script.h"

namespace fin {

/// Which frames of one clip a film shows.
struct FilmedFrames {
  std::vector<std::size_t> frames;  ///< one for each picture of the film: the nearest in true time
  std::size_t repeated = 0;         ///< pictures that show the frame of the picture before them
  std::size_t held = 0;             ///< of those, the ones before its clip begins or after it ends
  std::size_t skipped = 0;          ///< frames between two that are shown
  double from_s = 0.0;              ///< on its own true time, what it shows
  double to_s = 0.0;
};

/// What is shown when.
struct FilmPlan {
  double begins_s = 0.0;  ///< true time of the first picture, from the instant that all share
  double step_s = 0.0;    ///< true time from picture to picture
  std::size_t pictures = 0;
  std::vector<FilmedFrames> passes;

  [[nodiscard]] double timeOf(std::size_t picture) const {
    return begins_s + static_cast<double>(picture) * step_s;
  }
};

/// From the earliest beginning to the latest end of what the passes show; a pass that has not begun or is
/// over holds its frame. `times_s` has the true times of every clip's frames. 2.4 s at a tenth and 30
/// pictures a second are 720 pictures. BadRequest where a clip has no frame in the part that is wanted, or a
/// film would be longer than an hour. Pure.
Result<FilmPlan> planFilm(const FilmScript& script, std::span<const std::vector<double>> times_s);

/// "filmed at 240 a second, 20 of 100 pictures repeat the one before"; "… 48 of 96 frames left out".
std::string framesInWords(const FilmedFrames& frames, double filmedAt_Hz);

}  // namespace fin
