// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/pass_traces.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace fin {
namespace {

constexpr double kPathForDirection_bodies = 2.0;  ///< travel that shows the pull's direction well enough
constexpr double kBackgroundWanted = 0.7;         ///< share of the frames
constexpr double kHeldShare = 0.7;                ///< of the outline's frames, in which both ends are seen
constexpr double kHeldWithin_bodies = 0.04;       ///< spread of the ends' middle about the outline's
constexpr double kLargestTilt = 0.5;              ///< tangent: beyond, the path is not the pull's

struct SeenBody {
  std::size_t index;  ///< of the frame in the track
  double time_s;
  PixelPoint nose;
  PixelPoint tail;
  PixelPoint background;  ///< how far what lies behind has moved
  std::optional<PixelPoint> tip;
  std::optional<PixelPoint> mid;
  std::optional<PixelPoint> blade;
};

/// Nose and tail in the flat picture, in the frames that show both.
std::vector<SeenBody> seenBodies(const Track& track, std::span<const double> time_s,
                                 const Rectification& picture) {
  std::vector<SeenBody> out;
  const MarkTrack* nose = track.find(MarkName::Nose);
  const MarkTrack* tail = track.find(MarkName::Tail);
  const auto seenAt = [&](MarkName name, std::size_t i) -> std::optional<PixelPoint> {
    const MarkTrack* mark = track.find(name);
    if (mark == nullptr || !mark->samples[i].seen) return std::nullopt;
    return picture.flat(mark->samples[i].at);
  };
  if (nose == nullptr || tail == nullptr) return out;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (nose->samples[i].seen && tail->samples[i].seen) {
      out.push_back({i, time_s[i], picture.flat(nose->samples[i].at), picture.flat(tail->samples[i].at),
                     track.background.empty() ? PixelPoint{} : track.background[i].at,
                     seenAt(MarkName::Tip, i), seenAt(MarkName::Mid, i), seenAt(MarkName::Blade, i)});
    }
  }
  return out;
}

struct SeenCentre {
  double time_s;
  PixelPoint at;  ///< of the body, in the flat picture
  PixelPoint background;
};

/// Where the body's centre is by its outline: for a body whose ends were held badly, because they turn out of
/// sight. Empty where the marks are the better judge. The outline's middle lies beside the body's centre by
/// as much as where the marks were placed.
std::vector<SeenCentre> centresByOutline(const Track& track, std::span<const double> time_s,
                                         const std::vector<SeenBody>& seen, const Rectification& picture) {
  std::vector<SeenCentre> out;
  if (track.outline.empty() || seen.empty()) return out;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const OutlineSample& o = track.outline[i];
    if (o.seen && o.whole)
      out.push_back({time_s[i], picture.flat(o.centre),
                     track.background.empty() ? PixelPoint{} : track.background[i].at});
  }
  std::vector<double> apartX;
  std::vector<double> apartY;
  for (const SeenBody& s : seen) {
    const OutlineSample& o = track.outline[s.index];
    if (!o.seen || !o.whole) continue;
    const PixelPoint d = midpoint(s.nose, s.tail) - picture.flat(o.centre);
    apartX.push_back(d.x_px);
    apartY.push_back(d.y_px);
  }
  if (apartX.empty()) return {};
  const double body = length(seen.front().nose - seen.front().tail).value();
  const bool held = static_cast<double>(apartX.size()) > kHeldShare * static_cast<double>(out.size()) &&
                    std::hypot(robustSpread(apartX), robustSpread(apartY)) < kHeldWithin_bodies * body;
  if (held) return {};
  for (SeenCentre& c : out) c.at = c.at + PixelPoint{apartX.front(), apartY.front()};
  return out;
}

/// The axis of the picture the lure moves along most, or heads along when it hardly moves.
PixelPoint pullFromTrack(const std::vector<SeenBody>& seen) {
  const PixelPoint path =
      midpoint(seen.back().nose, seen.back().tail) - midpoint(seen.front().nose, seen.front().tail);
  const PixelPoint body = seen.front().nose - seen.front().tail;
  const PixelPoint d = length(path) > length(body) ? path : body;
  if (std::abs(d.x_px) >= std::abs(d.y_px)) return {d.x_px < 0.0 ? -1.0 : 1.0, 0.0};
  return {0.0, d.y_px < 0.0 ? -1.0 : 1.0};
}

/// Seen from above the camera may be turned against the pull: there the path itself is the direction.
PixelPoint alongTop(const std::vector<SeenBody>& seen, PixelPoint pull) {
  const PixelPoint path =
      midpoint(seen.back().nose, seen.back().tail) - midpoint(seen.front().nose, seen.front().tail);
  const double forward = dot(path, pull);
  const double aside = std::abs(path.x_px * pull.y_px - path.y_px * pull.x_px);
  const double body = length(seen.front().nose - seen.front().tail).value();
  const bool shown = forward > kPathForDirection_bodies * body && aside < kLargestTilt * forward;
  return shown ? path : pull;
}

TankFrame frameFor(const Geometry& geometry, const std::vector<SeenBody>& seen) {
  const PixelPoint pull = geometry.pull ? directionOf(*geometry.pull) : pullFromTrack(seen);
  TankFrame::Parts parts{geometry.scale, pull, {0.0, -1.0}};
  if (geometry.view == View::Top) {
    parts.along = alongTop(seen, pull);
    parts.up = {parts.along.y_px, -parts.along.x_px};
  } else {
    parts.up =
        upFromPlumb(geometry.plumb ? std::optional(geometry.picture.flat(*geometry.plumb)) : std::nullopt);
    const PixelPoint level{-parts.up.y_px, parts.up.x_px};
    parts.along = dot(level, pull) < 0.0 ? level * -1.0 : level;
  }
  return TankFrame(parts);
}

double unwrapped(double angle, double before) {
  return before + std::remainder(angle - before, 360.0);
}

double angleOf_deg(TankPoint v) {
  return std::atan2(v.v_mm, v.u_mm) * kDegreesPerRadian;
}

TankPoint apart(TankPoint a, TankPoint b) {
  return {a.u_mm - b.u_mm, a.v_mm - b.v_mm};
}

/// How far a place lies under a line, straight down.
double depthUnder(const PixelLine& line, TankPoint at, const TankFrame& frame) {
  const TankPoint from = frame.toTank(line.from);
  const TankPoint along = apart(frame.toTank(line.to), from);
  const double share = std::abs(along.u_mm) > 1e-9 ? (at.u_mm - from.u_mm) / along.u_mm : 0.5;
  return from.v_mm + share * along.v_mm - at.v_mm;
}

/// Whether places can be told against the tank, and how well that was seen.
void judgeBackground(const Track& track, const Geometry& geometry, PassTraces& out) {
  if (geometry.view != View::Chase) return;
  out.movingCamera = true;
  const auto seen = std::count_if(track.background.begin(), track.background.end(),
                                  [](const MarkSample& s) { return s.seen; });
  out.backgroundSeen =
      track.background.empty() ? 0.0 : static_cast<double>(seen) / static_cast<double>(track.frameCount);
  out.againstTank = out.backgroundSeen >= kBackgroundWanted;
}

}  // namespace

PixelPoint directionOf(Pull pull) {
  switch (pull) {
    case Pull::Right:
      return {1.0, 0.0};
    case Pull::Left:
      return {-1.0, 0.0};
    case Pull::Up:
      return {0.0, -1.0};
    case Pull::Down:
      return {0.0, 1.0};
  }
  return {1.0, 0.0};
}

Pixels markPlaceU95(Pixels bodyLength) {
  constexpr double kByHand_px = 0.55;
  constexpr double kOfBody = 0.0027;
  return Pixels(std::hypot(kByHand_px, kOfBody * bodyLength.value()));
}

double placeDifferenceU95(const PassTraces& traces) {
  const Pixels body(traces.bodyLength / traces.unitPerPixel);
  return std::numbers::sqrt2 * markPlaceU95(body).value() * traces.unitPerPixel;
}

PassTraces traceBody(const Track& track, std::span<const double> time_s, const Geometry& geometry) {
  PassTraces out;
  out.inMillimetres = geometry.scale.has_value();
  if (geometry.scale) {
    out.scaleRelativeU95 = geometry.scale->relativeU95();
    out.unitPerPixel = geometry.scale->mmPerPixel();
  }
  const std::vector<SeenBody> seen = seenBodies(track, time_s, geometry.picture);
  if (seen.empty()) return out;
  judgeBackground(track, geometry, out);
  const TankFrame frame = frameFor(geometry, seen);
  const double behind_mm =
      geometry.backgroundScale ? geometry.backgroundScale->mmPerPixel() : out.unitPerPixel;
  const auto waterline =
      geometry.waterline ? std::optional(geometry.picture.flat(*geometry.waterline)) : std::nullopt;
  const auto bottom = geometry.bottom ? std::optional(geometry.picture.flat(*geometry.bottom)) : std::nullopt;
  std::vector<double> lengths;
  std::vector<double> tipLengths;
  std::vector<double> bladeLengths;
  const auto addCentre = [&](double t, TankPoint centre, PixelPoint background) {
    const TankPoint behind = frame.shiftToTank(background, behind_mm);
    out.alongCentre.add(t, centre.u_mm - behind.u_mm);
    out.upCentre.add(t, centre.v_mm - behind.v_mm);
    if (waterline) out.depth.add(t, depthUnder(*waterline, centre, frame));
    if (bottom) out.overBottom.add(t, -depthUnder(*bottom, centre, frame));
  };
  const std::vector<SeenCentre> byOutline = centresByOutline(track, time_s, seen, geometry.picture);
  for (const SeenCentre& c : byOutline) addCentre(c.time_s, frame.toTank(c.at), c.background);
  for (const SeenBody& s : seen) {
    const TankPoint nose = frame.toTank(s.nose);
    const TankPoint tail = frame.toTank(s.tail);
    const double du = nose.u_mm - tail.u_mm;
    const double dv = nose.v_mm - tail.v_mm;
    const double angle = std::atan2(dv, du) * kDegreesPerRadian;
    if (byOutline.empty())
      addCentre(s.time_s, {0.5 * (nose.u_mm + tail.u_mm), 0.5 * (nose.v_mm + tail.v_mm)}, s.background);
    out.acrossTail.add(s.time_s, tail.v_mm);
    out.bodyAlong.add(s.time_s, du);
    out.bodyUp.add(s.time_s, dv);
    out.axis.add(s.time_s, out.axis.empty() ? angle : unwrapped(angle, out.axis.y.back()));
    lengths.push_back(std::hypot(du, dv));
    const auto addAgainstBody = [&](PixelPoint end, Series& angles, std::vector<double>& ends) {
      const TankPoint toEnd = apart(frame.toTank(end), tail);
      const double against = angleOf_deg(toEnd) - angleOf_deg(apart(tail, nose));
      angles.add(s.time_s, unwrapped(against, angles.empty() ? 0.0 : angles.y.back()));
      ends.push_back(std::hypot(toEnd.u_mm, toEnd.v_mm));
    };
    if (s.tip) addAgainstBody(*s.tip, out.kick, tipLengths);
    if (s.blade) addAgainstBody(*s.blade, out.blade, bladeLengths);
    if (s.mid) {
      const TankPoint mid = frame.toTank(*s.mid);
      out.bend.add(s.time_s,
                   std::remainder(angleOf_deg(apart(nose, mid)) - angleOf_deg(apart(mid, tail)), 360.0));
    }
  }
  if (track.background.empty()) {
    const MarkTrack& nose = *track.find(MarkName::Nose);
    for (std::size_t i = 0; i < track.frameCount; ++i) {
      if (nose.samples[i].seen)
        out.alongNose.add(time_s[i], frame.toTank(geometry.picture.flat(nose.samples[i].at)).u_mm);
    }
  }
  out.bodyLength = median(lengths);
  if (!tipLengths.empty()) out.tipLength = median(tipLengths);
  if (!bladeLengths.empty()) out.bladeLength = median(bladeLengths);
  const double spacing = out.axis.spacing_s();
  out.frameRate_Hz = spacing > 0.0 ? 1.0 / spacing : 0.0;
  return out;
}

}  // namespace fin
