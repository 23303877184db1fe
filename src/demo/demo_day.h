// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>

#include "core/units/job_control.h"
#include "core/units/result.h"
#include "demo/demo_passes.h"

namespace fin {

/// Makes the demo day in a folder: its clips, filmed in the rehearsal tank, and its log, with every pass set
/// up, followed and read. All names are invented. What is there already is kept, so that an interrupted make
/// goes on. Returns the log's file.
Result<std::filesystem::path> makeDemoDay(const std::filesystem::path& folder, const JobControl& job = {});

/// What the testers say of a pass of the demo: its marks, its ruler and its rate.
PassRequest demoRequest(const DemoPass& pass, const std::filesystem::path& clip, const Rack& rack);

}  // namespace fin
