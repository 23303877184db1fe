// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/logged.h"

#include <gtest/gtest.h>

namespace fin::test {

PassId addPass(Log& log, const std::string& title, const PassRequest& request,
               std::optional<PlannedPassId> planned, const std::string& camera) {
  const auto fingerprint = fingerprintOf(request.clip);
  EXPECT_TRUE(fingerprint) << request.clip;
  if (!fingerprint) return 0;
  const auto id = log.addPass({title, request, *fingerprint, planned, camera});
  EXPECT_TRUE(id) << id.error().message;
  return id.value_or(0);
}

Measurement measurementOf(const LoggedPass& pass, ReadingSet readings, Track track) {
  Measurement out;
  out.clip = pass.clip;
  out.followedFrom = pass.request;
  out.followingVersion = kFollowingVersion;
  static double clock_s = 1.7e9;
  out.followedAt_s = ++clock_s;
  out.frames = {track.frameCount, track.followed(), track.bridged()};
  out.track = std::move(track);
  out.readFrom = pass.request;
  out.methodVersion = kMethodVersion;
  out.madeAt_s = out.followedAt_s;
  out.readings = std::move(readings);
  return out;
}

void keepReadings(Log& log, PassId pass, ReadingSet readings, Track track) {
  const auto logged = log.pass(pass);
  ASSERT_TRUE(logged) << logged.error().message;
  const auto kept = log.saveMeasurement(pass, measurementOf(*logged, std::move(readings), std::move(track)));
  EXPECT_TRUE(kept) << kept.error().message;
}

}  // namespace fin::test
