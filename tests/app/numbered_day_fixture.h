// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "read_day_fixture.h"
#include "support/numbered_film.h"

namespace fin::app {

/// Seven passes, each of another rig, on numbered clips; each with its run beginning at another frame.
class NumberedDayTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    for (std::int64_t rig = 0; rig < 7; ++rig) {
      plan_.rack.models.push_back({.id = rig + 1, .name = "Bait " + std::to_string(rig)});
      plan_.rack.rigs.push_back({.id = rig + 20, .model = rig + 1});
      add(**log, rig, 10 + 5 * static_cast<std::size_t>(rig));
    }
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
  }
  void add(Log& log, std::int64_t rig, std::size_t begins) {
    const auto clip = folder_ / ("clip " + std::to_string(rig) + ".mp4");
    const PassId id = keep(log, rig + 20, "clip " + std::to_string(rig), Protocol::Retrieve,
                           {{ReadingId::TravelSpeed, 250.0, "mm/s", 2.0, 100.0},
                            {ReadingId::RiseRate, 3.0 * static_cast<double>(rig), "mm/s", 0.5, 50.0}},
                           false);
    test::film(clip, {.frames = 60});  // in place of what only stood for a clip
    const LoggedPass before = *log.pass(id);
    LoggedPass after = before;
    after.clip = *fingerprintOf(clip);
    PassRequest& request = after.request;
    request.view = View::Side;
    request.scale = ScaleMark{{0.0, 90.0}, {100.0, 90.0}, Millimetres(200.0), Millimetres(1.0)};
    request.firstFrame = begins;
    request.marks = {{MarkName::Nose, begins, {20.0, 40.0}}, {MarkName::Tail, begins, {10.0, 40.0}}};
    ASSERT_TRUE(log.changePasses({{before, after}}));
    Track track{begins, 60 - begins, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
    for (std::size_t i = 0; i < track.frameCount; ++i) {
      const double along = 1.5 * static_cast<double>(i);
      track.marks[0].samples.push_back({true, {20.0 + along, 40.0}, 1.0});
      track.marks[1].samples.push_back({true, {10.0 + along, 40.0}, 1.0});
    }
    test::keepReadings(log, id,
                       {{{ReadingId::TravelSpeed, 250.0, "mm/s", 2.0, 100.0},
                         {ReadingId::RiseRate, 3.0 * static_cast<double>(rig), "mm/s", 0.5, 50.0}},
                        {}},
                       track);
  }
};

}  // namespace fin::app
