// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <algorithm>

#include "support/logged.h"
#include "window_fixture.h"

namespace fin::app {

/// A log whose passes were read already, with readings as a test wants them.
class ReadDayTest : public WindowTest {
 protected:
  /// A pass of a rig of plan_, with a file that stands for its clip; planned ones are done, in a block each.
  PassId keep(Log& log, RigId rig, const std::string& title, Protocol protocol, std::vector<Reading> readings,
              bool planned) {
    const auto clip = folder_ / (title + ".mp4");
    test::write(clip, title);
    PassRequest request;
    request.clip = clip;
    request.protocol = protocol;
    request.rigName = plan_.rack.fullName(*plan_.rack.rig(rig));
    std::optional<PlannedPassId> made;
    if (planned) {
      PlannedPass pass{
          .id = static_cast<std::int64_t>(plan_.sheet.size() + 1), .rig = rig, .protocol = protocol};
      pass.state = PassState::Done;
      pass.block = 1 + static_cast<int>(std::count_if(plan_.sheet.begin(), plan_.sheet.end(),
                                                      [rig](const PlannedPass& p) { return p.rig == rig; }));
      plan_.sheet.push_back(pass);
      made = pass.id;
    }
    const PassId id = test::addPass(log, title, request, made, planned ? "top" : "");
    test::keepReadings(log, id, {std::move(readings), {}});
    return id;
  }
  QString text(const char* label) { return find<QLabel>(label)->text(); }

  DayPlan plan_;
};

}  // namespace fin::app
