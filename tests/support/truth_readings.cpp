// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/truth_readings.h"

#include <cmath>
#include <functional>
#include <random>

#include "core/readings/beat.h"
#include "core/readings/drag.h"
#include "core/readings/fall.h"
#include "core/readings/hop.h"
#include "core/readings/rest.h"
#include "core/readings/retrieve.h"
#include "core/readings/twitch.h"
#include "core/rehearsal/rehearse.h"
#include "support/followed_error.h"

namespace fin::test {
namespace {

/// What is done to the true places and to the geometry before they are read.
using Seen = std::function<void(Track&, Geometry&, const ScaleMark&)>;

Seen shaken(double scatter_px) {
  return [=](Track& track, Geometry&, const ScaleMark&) {
    std::mt19937 random(1);
    std::normal_distribution<double> scatter(0.0, 1.0);
    for (MarkTrack& m : track.marks)
      for (MarkSample& s : m.samples) s.at = s.at + PixelPoint{scatter(random), scatter(random)} * scatter_px;
  };
}

Track trueTrack(const RehearsalTank& tank, const PassRequest& request, const std::vector<MarkName>& names) {
  Track track = tank.trueTrack(names);
  track.frameCount = *request.lastFrame - request.firstFrame + 1;
  track.firstFrame = request.firstFrame;
  for (MarkTrack& m : track.marks) {
    m.samples.erase(m.samples.begin(), m.samples.begin() + static_cast<std::ptrdiff_t>(request.firstFrame));
    m.samples.resize(track.frameCount);
  }
  return track;
}

struct TruthSheet {
  ReadingSheet sheet;
  PassNeeds needs;
};

TruthSheet sheetOf(const RehearsalTank& tank, const Seen& seen, std::optional<Protocol> protocol = {}) {
  PassRequest request = requestFor(tank, {});
  request.protocol = protocol.value_or(request.protocol);
  std::vector<MarkName> names;
  for (const MarkSeed& s : request.marks) names.push_back(s.name);
  Track track = trueTrack(tank, request, names);
  std::vector<double> times;
  for (std::size_t i = 0; i < track.frameCount; ++i)
    times.push_back(tank.timeOf(track.firstFrame + i).value());
  Geometry geometry;
  geometry.view = request.view;
  geometry.pull = request.pull;
  geometry.scale = *Scale::create(*request.scale, {});
  seen(track, geometry, *request.scale);
  const PassTraces traces = traceBody(track, times, geometry);
  TruthSheet out{{}, {request.protocol, request.view, names, true, false, false}};
  ReadingSheet& sheet = out.sheet;
  if (request.protocol == Protocol::Fall) readFall(traces, request.view, sheet);
  if (request.protocol == Protocol::Twitch) readTwitch(traces, request.protocol, request.view, sheet);
  if (request.protocol == Protocol::Hop) readHop(traces, sheet);
  if (request.protocol == Protocol::Drag) readDrag(traces, sheet);
  if (request.protocol == Protocol::Rest) readRest(traces, 0.0, sheet);
  if (request.protocol == Protocol::Retrieve) readRetrieve(traces, request.view, sheet);
  if (!traces.blade.empty()) readBeat(traces.blade, traces.bladeLength, traces, sheet);
  return out;
}

}  // namespace

ReadingSet readTruth(const RehearsalTank& tank, double scatter_px, std::optional<Protocol> protocol) {
  const TruthSheet out = sheetOf(tank, shaken(scatter_px), protocol);
  return out.sheet.complete(out.needs);
}

ReadingSet readFollowed(const RehearsalTank& tank, std::mt19937& random, std::optional<Protocol> protocol) {
  const TruthSheet out = sheetOf(
      tank,
      [&](Track& track, Geometry& geometry, const ScaleMark& mark) {
        followAsSeen(track, random);
        markAsPlaced(geometry, mark, random);
      },
      protocol);
  return out.sheet.complete(out.needs);
}

Evidence evidenceOfTruth(const RehearsalTank& tank) {
  return sheetOf(tank, shaken(0.0)).sheet.evidence();
}

double valueOf(const ReadingSet& set, ReadingId name) {
  const Reading* r = set.find(name);
  return r == nullptr ? std::nan("") : std::get<double>(r->value);
}

}  // namespace fin::test
