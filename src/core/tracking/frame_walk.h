// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>

#include "core/footage/frame_source.h"
#include "core/units/job_control.h"

namespace fin {

/// What is done with each frame; an error ends the walk. A damaged frame comes as none.
using FrameVisit = std::function<Result<void>(std::size_t frame, const Picture* picture)>;

/// Visits frames first … last, both included, in order or from the last to the first; reports progress.
/// Errors: Cancelled; Unreadable; the visit's own.
Result<void> walkForwards(FrameSource& source, std::size_t first, std::size_t last, const JobControl& job,
                          const FrameVisit& visit);
Result<void> walkBackwards(FrameSource& source, std::size_t first, std::size_t last, const JobControl& job,
                           const FrameVisit& visit);

}  // namespace fin
