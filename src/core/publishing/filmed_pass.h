// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <memory>

#include "core/measuring/measure.h"
#include "core/publishing/film_script.h"

namespace fin {

/// How a film says things; the window has its own units and names.
struct FilmLanguage {
  std::function<FilmWords(const Reading&)> reading;  ///< its time is set by who asks
  std::function<FilmTrace(const PassRequest&, const PassResult&)> trace;
};
/// In the units of the readings, with the field's names.
FilmLanguage plainFilmLanguage();

/// What a film shows of a pass as it was measured: its clip, time and size, where the lure is, its trace, its
/// still water. What `said` holds already stays. Without readings.
FilmPass filmedPass(const PassRequest& request, const PassResult& result, const FilmLanguage& language,
                    FilmPass said = {});

/// Where the lure was seen: the mean of its marks, or of its outline where there are none.
std::vector<FilmLure> lureOn(const Track& track);
/// How long the lure is in the picture; none where that is not known.
std::optional<double> lureLength_px(const PassRequest& request, const Track& track);

/// A short clip of a pass that runs round and round: the lure large, nothing written on it, a fifth of the
/// true speed, about its middle. Opens the clip. Errors as openClip and ClipClock.
Result<FilmScript> loopOf(const PassRequest& request, const Track& track, const JobControl& job = {});
/// Makes it as NAME.mp4 and NAME.webm, so that it plays anywhere. Errors as makeFilm.
Result<void> writeLoop(const FilmScript& loop, const std::filesystem::path& name, const JobControl& job = {});

/// The pass's readings as they arise: what its window gives when it ends at a time, about four times a second
/// of true time and at most forty times, until the whole of it. At most eight, in the protocol's order;
/// readings in words, and of passes that are listened to or show several things, come at the end only. Each
/// takes as long as readPass. Cancelled where the job was stopped.
Result<std::vector<FilmWords>> readingsAsTheyArise(const PassRequest& request, const PassResult& result,
                                                   const std::shared_ptr<const Clip>& clip,
                                                   const FilmLanguage& language, const JobControl& job = {});

}  // namespace fin
