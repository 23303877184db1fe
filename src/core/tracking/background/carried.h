// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/tracking/background/film_looks.h"

namespace fin {

/// Where a camera was carried to that was said to stand: how far what lies behind has moved in the picture
/// since the first frame of the track's window, one sample a frame; empty of one that stands. The samples are
/// not `seen`: the way is added up from one frame that is looked at to the next (every so many, made
/// `smaller`), good to tell that it moved and how far about, not to measure by. Light that moves all one way
/// looks alike, but for what stays in its place: that settles it. It does not see a camera that moves by less
/// than a hundredth or so of the picture, nor one before an even wall.
std::vector<MarkSample> wayCarried(const ReducedFilm& film, const Track& track, std::size_t every,
                                   int smaller, const JobControl& job);

}  // namespace fin
