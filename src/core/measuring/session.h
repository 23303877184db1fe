// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>

#include "core/measuring/measure.h"
#include "core/measuring/measurement.h"

namespace fin {

/// What is to be measured, and what is there already.
struct MeasuringOrder {
  PassRequest request;
  ClipFingerprint madeOn;                      ///< the file that the pass was made on
  std::shared_ptr<const Measurement> earlier;  ///< null where nothing was measured yet
  bool anew = false;                           ///< follow once more whatever there is
};

/// What a pass needs next.
enum class NextStep {
  Nothing,     ///< its measurement is current
  Read,        ///< a moment's work: the track stands
  Follow,      ///< through its frames
  Mark,        ///< the person has to say more before anything can be followed
  ChooseClip,  ///< the file is another one than the pass was made on: the person says what is to be done
};
NextStep nextStep(const MeasuringOrder& order, const ClipFingerprint& now);

/// All is said that following (or, for sound, listening) needs.
bool readyToFollow(const PassRequest& request);

/// What measuring gave: the record to keep, and what it was drawn from, to be shown.
struct Measured {
  std::shared_ptr<const Measurement> measurement;
  PassResult result;
  bool followed = false;  ///< just now, rather than taken from what there was
};

struct MeasuringMeans {
  int threads = 0;  ///< that decode; 0 for as many as there are cores
  std::size_t keptBytes = roomForFrames_bytes();
};

/// Does what `nextStep` says and reads the numbers: the only way from a request to a measurement, for the
/// window, the command line, a batch and the demo alike. Following starts from what there is: where only
/// places of marks differ, it goes anew only around them. Where the earlier measurement is current it is
/// given back itself, with what it was drawn from.
///
/// Errors: BadRequest where there is nothing at all to follow; ClipChanged where the clip is another file
/// than the pass was made on; as openClip, followPass and readPass else. One call is for one thread; several
/// may run at once on one clip.
Result<Measured> measure(const MeasuringOrder& order, const std::shared_ptr<const Clip>& clip,
                         const MeasuringMeans& means = {}, const JobControl& job = {});

/// A stretch of a pass as a pass of its own, measured.
struct MeasuredPart {
  PassRequest request;
  std::shared_ptr<const Measurement> measurement;
};
/// What the lure does one after the other (passesOfStretches), each read from the following that is there.
/// Errors as readPass.
Result<std::vector<MeasuredPart>> measureStretches(const PassRequest& request, const Track& track,
                                                   const std::shared_ptr<const Clip>& clip,
                                                   const JobControl& job = {});

}  // namespace fin
