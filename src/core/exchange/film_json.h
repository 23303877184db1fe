// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <string>

#include "core/publishing/film_script.h"

namespace fin {

/// Reads `agile-fin-film/1`. Strict: an unknown key, a number that is not finite, or anything after the JSON
/// is an error that names it. `folder` is what a relative clip or pass file is relative to. What a pass file
/// is named for is not filled in yet, so the whole is not validated.
Result<FilmScript> parseFilm(const std::string& json, const std::filesystem::path& folder);

/// The same as JSON, files relative to `folder` where they lie below it.
std::string writeFilm(const FilmScript& script, const std::filesystem::path& folder);

}  // namespace fin
