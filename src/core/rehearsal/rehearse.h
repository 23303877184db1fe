// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>

#include "core/footage/clip_writer.h"
#include "core/measuring/pass_request.h"
#include "core/rehearsal/tank.h"
#include "core/units/job_control.h"

namespace fin {

/// Films a scene: writes its clip as a camera would. `playRate` is the rate at which the clip plays; a camera
/// that films slow motion plays at 30 what it took at 240.
Result<void> filmRehearsal(const RehearsalScene& scene, const std::filesystem::path& clip,
                           std::optional<Hertz> playRate = {}, const JobControl& job = {});

/// What a motion is a pass of.
Protocol protocolOf(const Motion& motion);

/// What a tester who knows everything would say about a filmed scene: marks in the first frame that shows
/// the whole lure, the ruler, the pull.
PassRequest requestFor(const RehearsalTank& tank, const std::filesystem::path& clip);

/// Roughly around the body, as a hand would draw it: its ends and its sides.
OutlineSeed outlineFor(const RehearsalTank& tank, std::size_t frame);

}  // namespace fin
