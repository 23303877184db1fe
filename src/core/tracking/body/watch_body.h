// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/tracking/body/pose_path.h"
#include "core/tracking/body/reduced_film.h"
#include "core/tracking/track.h"

namespace fin {

/// Holds followed ends against the body's own way through a film, decided over the whole of it (PosePath).
///
/// Where an end was followed and agrees with the body, nothing is changed. Where it was lost or is doubtful, or
/// where it left its place on the body, it is put where it should lie on the body; where the body is not sure
/// either, it is doubtful. `moving`: what lies behind moves in the picture.
void watchBody(const ReducedFilm& film, const std::vector<MarkSeed>& seeds, bool moving, Foreshortening turns,
               Track& track);

}  // namespace fin
