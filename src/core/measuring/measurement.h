// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/footage/clip_fingerprint.h"
#include "core/measuring/pass_request.h"
#include "core/readings/reading.h"
#include "core/tracking/track.h"

namespace fin {

/// How many frames of a pass's window were gone through and what came of them.
struct FrameCounts {
  std::size_t read = 0;      ///< in the window
  std::size_t followed = 0;  ///< with everything seen that was placed
  std::size_t bridged = 0;   ///< in short gaps between those

  friend bool operator==(const FrameCounts&, const FrameCounts&) = default;
};

/// The one record behind every number of a pass: which file, what following took in and gave, what reading
/// took in and gave, by which methods and when. Made whole and never changed after; shared as
/// `std::shared_ptr<const Measurement>`, which any thread may read.
struct Measurement {
  ClipFingerprint clip;       ///< of the file that was followed
  PassRequest followedFrom;   ///< as it stood when following began
  int followingVersion = 0;   ///< kFollowingVersion of the program that followed; 0 when not known
  double followedAt_s = 0.0;  ///< when, seconds since 1970 UTC; 0 when not known
  Track track;
  PassRequest readFrom;   ///< as it stood when the readings were taken
  int methodVersion = 0;  ///< kMethodVersion of the program that read; 0 when not known
  double madeAt_s = 0.0;  ///< when it was read, seconds since 1970 UTC; 0 when not known
  FrameCounts frames;
  ReadingSet readings;
  std::vector<std::string> warnings;
};

/// Where a measurement's numbers came from, without its track.
struct Provenance {
  std::filesystem::path clip;  ///< as it was called when it was read
  ClipFingerprint fingerprint;
  std::size_t firstFrame = 0;  ///< of the window
  FrameCounts frames;
  int methodVersion = 0;
  double madeAt_s = 0.0;  ///< seconds since 1970 UTC; 0 when not known

  /// Of the window; the first one where nothing was read.
  [[nodiscard]] std::size_t lastFrame() const { return firstFrame + frames.read - (frames.read > 0 ? 1 : 0); }

  friend bool operator==(const Provenance&, const Provenance&) = default;
};
Provenance provenanceOf(const Measurement& measurement);

/// What a measurement is worth for a pass as it stands now.
enum class MeasurementState {
  Current,         ///< its readings are those of this request and this file, by this program's methods
  NeedsReading,    ///< the track stands; the readings are of an earlier request or method
  NeedsFollowing,  ///< there is no track of these marks, this window and this method
  ClipChanged,     ///< the file is another one than the pass was made on
};

/// `measurement` may be null: nothing was measured yet. `now` is the fingerprint of the pass's clip.
MeasurementState stateOf(const Measurement* measurement, const PassRequest& request,
                         const ClipFingerprint& now);

/// True when what `before` and `now` give to following is the same. The file's name, the scale, the lines and
/// everything else that only reading looks at do not count; the file itself is known by its fingerprint.
bool sameFollowing(const PassRequest& before, const PassRequest& now);
/// The same where places of marks may differ.
bool onlySeedsDiffer(const PassRequest& before, const PassRequest& now);
/// True when the readings of `before` are those of `now`: all but the file's and the rig's names counts.
bool sameReading(const PassRequest& before, const PassRequest& now);

}  // namespace fin
