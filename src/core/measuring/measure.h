// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <vector>

#include "core/footage/cached_frame_source.h"
#include "core/footage/clip.h"
#include "core/measuring/pass_request.h"
#include "core/readings/evidence.h"
#include "core/readings/feasibility.h"
#include "core/readings/outline_traces.h"
#include "core/tracking/finding/find_lure.h"
#include "core/units/job_control.h"

namespace fin {

/// What one pass gave: clip → frames → track → tank coordinates → traces → readings.
struct PassResult {
  Track track;
  std::vector<double> time_s;  ///< true time of every frame of the track, from the clip's first frame
  std::string timeBasis;
  PassTraces traces;
  OutlineTraces outline;  ///< with Protocol::Skirt and Rest
  ReadingSet readings;
  Evidence evidence;
  std::vector<ClipStretch> stretches;  ///< where the clip shows several things
  std::vector<std::string> warnings;
  std::vector<FoundMark> found = {};  ///< where the marks were found rather than placed
};

/// Opens the clip of a request, field by field where the request says so. Errors as Clip::open; BadRequest
/// ("by_field") for a clip that is not interlaced or is turned.
Result<std::shared_ptr<const Clip>> openClip(const PassRequest& request, Clip::OpenOptions options = {});

/// The last frame of a request's window, as far as the clip goes.
std::size_t lastFrameOf(const PassRequest& request, const Clip& clip);

/// Follows marks, background and outline of a request through its window (of a lure that is held still they
/// are taken where they were placed, and its outline cut out of that one picture); `keptBytes` is less where
/// several are followed at once. An outline that cannot be told from what lies behind it leaves what the
/// marks tell, with the reason in `outlineLost`. Errors as followMarks, followOutline and ClipClock.
Result<Track> followPass(const PassRequest& request, const Clip& clip, FrameSource& source,
                         const JobControl& job = {}, std::size_t keptBytes = roomForFrames_bytes());

/// The same from what was followed before: where only seeds differ, the marks are followed anew only around
/// the change. Errors as followPass.
Result<Track> followPassAgain(const PassRequest& request, const Track& earlier, const PassRequest& before,
                              const Clip& clip, FrameSource& source, const JobControl& job = {},
                              std::size_t keptBytes = roomForFrames_bytes());

/// Further ways of the lure through the picture, after it has left it: each as a request of its own, with the
/// window and the marks of that way, and all else as it was said. Errors as findCrossings.
Result<std::vector<PassRequest>> furtherPasses(const PassRequest& request, const Track& track,
                                               FrameSource& source, const JobControl& job = {});

/// One thing that the lure does in a clip, as a request of its own: its protocol, its window, and where its
/// marks were followed to at the window's first frame that shows them; with its part of the track.
struct StretchPass {
  PassRequest request;
  Track track;
};
/// What the lure does one after the other in a pass that was followed. None where it does one thing all
/// along. Errors as readPass.
Result<std::vector<StretchPass>> passesOfStretches(const PassRequest& request, const Clip& clip,
                                                   const Track& track);

/// What a clip can tell for what was said of it so far, before anything is followed.
std::vector<Feasibility> feasibilityFor(const PassRequest& request, const Clip& clip);

/// Reads the numbers out of a track. Pure and quick but for sound, which is decoded here; Cancelled there.
/// What the track holds and the request does not ask for is not looked at.
Result<PassResult> readPass(const PassRequest& request, const Clip& clip, Track track,
                            const JobControl& job = {});

/// True where the lure was lost so early that no reading stands for that reason.
bool lureLost(const PassRequest& request, const PassResult& result);

}  // namespace fin
