// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/calibration/lens.h"
#include "core/calibration/scale.h"
#include "core/calibration/tank_frame.h"
#include "core/readings/pass_traces.h"
#include "core/readings/reading.h"
#include "core/readings/sheet.h"
#include "core/readings/thresholds.h"
#include "core/readings/twitch_starts.h"
#include "core/tracking/body/axis_pose.h"
#include "core/tracking/track.h"

namespace fin {

struct QuietStretch {
  Seconds from;
  Seconds to;

  friend bool operator==(const QuietStretch&, const QuietStretch&) = default;
};

/// Frames that do not count, because something else was going on in them.
struct FouledStretch {
  FrameStretch frames;
  std::string why;

  friend bool operator==(const FouledStretch&, const FouledStretch&) = default;
};

/// The lure's own length from nose mark to tail mark, as a ruler that is always in the picture.
struct OwnLength {
  Millimetres length;
  Millimetres u95{0.5};

  friend bool operator==(const OwnLength&, const OwnLength&) = default;
};

/// From which side a camera that swims along looks at the lure.
enum class SeenFrom { Side, Behind, Ahead, Above };

/// How the lure's heading is turned out of the picture's plane, as a person stated it: positive with the nose
/// away from the camera.
struct StatedAngle {
  double deg = 0.0;
  double u95_deg = 3.0;

  friend bool operator==(const StatedAngle&, const StatedAngle&) = default;
};

/// A part of a clip in which the lure does one thing.
struct ClipStretch {
  Protocol protocol = Protocol::Retrieve;
  FrameStretch frames;

  friend bool operator==(const ClipStretch&, const ClipStretch&) = default;
};

/// What hangs on the line before the body, by its weight in the water.
struct RigHead {
  double inWater_g = 0.0;

  friend bool operator==(const RigHead&, const RigHead&) = default;
};

/// The part of a request that is the camera's and not the lure's: time, size, lines and lens. It holds for
/// all clips of a camera that stood still in between.
struct Calibration {
  std::optional<Hertz> captureRate;
  std::optional<Seconds> rollingShutter;  ///< from a picture's first row to its last; read at once if absent
  bool byField = false;  ///< an interlaced clip is read field by field: frames count its fields
  std::optional<ScaleMark> scale;
  std::optional<SquareMark> square;  ///< in place of a scale
  std::optional<ScalePlane> scalePlane;
  std::optional<PixelLine> plumb;
  std::optional<PixelLine> waterline;
  std::optional<PixelLine> bottom;
  std::optional<Lens> lens;

  [[nodiscard]] bool empty() const { return *this == Calibration{}; }
  friend bool operator==(const Calibration&, const Calibration&) = default;
};

/// All that a person says about one pass: what `agile-fin-pass/1` holds. A value; what is absent has the
/// default that the format states.
struct PassRequest : Calibration {
  std::filesystem::path clip;
  Protocol protocol = Protocol::Retrieve;
  View view = View::Side;
  std::optional<Pull> pull;
  std::vector<MarkSeed> marks;
  bool findMarks = false;  ///< they are to be found (find_marks.h); then there are none
  std::optional<std::filesystem::path> looksLike;  ///< with that: a pass of the same model, with marks
  std::optional<OutlineSeed> outline;
  std::optional<OwnLength> ownLength;
  std::optional<SeenFrom> seenFrom;  ///< side where absent, with a camera that swims along
  std::optional<StatedAngle> viewAngle;
  std::optional<PixelLine> pullLine;   ///< along which it is pulled, seen from above
  std::vector<ClipStretch> stretches;  ///< where the clip shows several things; then `protocol` means nothing
  bool findStretches = false;          ///< they are to be told from the path
  std::vector<HiddenRegion> hidden;
  std::vector<FouledStretch> fouled;
  std::optional<Millimetres> bodyHalfHeight;
  bool followBackground = false;
  std::size_t firstFrame = 0;
  std::optional<std::size_t> lastFrame;  ///< the clip's last where absent
  std::optional<QuietStretch> quiet;
  std::optional<TwitchStarts> twitches;  ///< as the person put them right; found where absent
  Thresholds thresholds;
  std::string rigName;
  std::string rigNote;
  std::optional<RigHead> head;

  friend bool operator==(const PassRequest&, const PassRequest&) = default;
};

constexpr Seconds kLongestRollingShutter{0.1};

/// What is known before a pass is read; but for its sound.
PassNeeds needsOf(const PassRequest& request);

/// The clip shows several things, said or to be found.
inline bool hasStretches(const PassRequest& request) {
  return request.findStretches || !request.stretches.empty();
}

/// What lies behind the lure is followed too: only a moving camera needs it.
bool followsBackground(const PassRequest& request);

/// How far the body may be seen shortened, by what it does and from where it is filmed.
Foreshortening turnsOf(const PassRequest& request);

/// How far nose and tail are apart in the picture where both were placed in one frame; none where they never
/// were.
std::optional<double> bodyLength_px(const PassRequest& request);

/// The scale of the lure's plane as a request gives it, from its length or its rectangle; none where neither
/// was said. `plane` is the request's own, or none for what lies where the ruler does. BadRequest as Scale.
Result<std::optional<Scale>> scaleOf(const PassRequest& request, const std::optional<ScalePlane>& plane);
/// How a request's picture is laid flat. BadRequest as PlaneSquare.
Result<Rectification> rectificationOf(const PassRequest& request);

/// A draft is being filled in: its marks may still be missing.
enum class Stage { Whole, Draft };

/// What can be told wrong without the clip. BadRequest with the key's name.
Result<void> validate(const PassRequest& request, Stage stage = Stage::Whole);

}  // namespace fin
