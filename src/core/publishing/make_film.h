// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/publishing/film_script.h"
#include "core/units/job_control.h"

namespace fin {

/// What a film came out as.
struct FilmMade {
  std::size_t titlePictures = 0;
  std::size_t pictures = 0;  ///< of the passes, each turn counted
  std::size_t endPictures = 0;
  double length_s = 0.0;
  std::vector<std::string> notes;  ///< what was repeated, left out or not heard; also on the end card
};

/// Makes a film of two to six clips in step, or of one: H.264 and AAC in .mp4, VP9 and Opus in .webm. Every
/// picture of it shows the frame that is nearest in true time; none is made up, and what is repeated is said.
/// A frame that cannot be decoded is shown as the one before it, and that is said. With sound it runs once
/// for each clip that has any.
///
/// The file is there whole or not at all; what stood in its place stays until then. Errors: BadRequest with
/// the script's key; Unreadable for a clip that is gone; NotWritable (a full disk too); Cancelled. Progress
/// goes from 0 to 1 with the pictures written. One call is for one thread; it uses others to decode and
/// encode.
Result<FilmMade> makeFilm(const FilmScript& script, const std::filesystem::path& file,
                          const JobControl& job = {});

}  // namespace fin
