// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/fall.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <optional>

#include "core/readings/body_angle.h"
#include "core/readings/rhythm_readings.h"
#include "core/readings/terminal_fall.h"
#include "core/signals/line_fit.h"
#include "core/signals/periodic_fit.h"
#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kTailLost_s = 0.1;
constexpr double kTurned_bodies = 0.25;  ///< how far the nose may be off for the body's middle
constexpr double kSways_bodies = 0.05;
constexpr double kAboutEnd_s =
    0.3;  ///< either way of where a fall ends, in which its path's sway is looked at
constexpr double kTumbleFrom_deg = 360.0;
constexpr double kSideHysteresis = 0.35;  ///< of the widest showing of the body's length
constexpr double kForeshortened = 0.75;   ///< a heading that turns past the camera shortens the body
constexpr double kTouchDownWindow_s = 0.12;
constexpr double kBeforeBottom_s = 0.10;  ///< "just before"
constexpr double kLeastSteady_s = 0.25;
constexpr double kLeastDrop_bodies = 0.3;
constexpr double kChanceAllowed = 1e-4;
constexpr double kMeanBlocks = 8.0;
constexpr double kTurnEnds = 0.012;  ///< turns by which the two ends of a tumble may be told wrongly (95 %)

const ReadingId kSteadyNames[] = {ReadingId::FallRate,   ReadingId::TimePerMetre, ReadingId::SettleDistance,
                                  ReadingId::GlideRatio, ReadingId::GlideAngle,   ReadingId::FallAttitude};

Series depthOf(const PassTraces& traces) {
  Series depth = traces.upCentre;
  for (double& v : depth.y) v = -v;
  return depth;
}

struct SteadyPart {
  TerminalFall fit;
  double from_s = 0.0;
  double to_s = 0.0;
  bool landed = false;
};

Result<SteadyPart> findSteadyPart(const PassTraces& traces, const Series& depth) {
  const double drop = *std::max_element(depth.y.begin(), depth.y.end()) - depth.y.front();
  if (drop < kLeastDrop_bodies * traces.bodyLength) {
    return failure(ErrorCode::Unsupported, "the lure does not fall in this clip");
  }
  const auto bottom = touchDown(depth, kTouchDownWindow_s);
  SteadyPart part;
  part.landed = bottom.has_value();
  part.to_s = bottom ? *bottom - kBeforeBottom_s : depth.t_s.back();
  auto fit = fitTerminalFall(depth, part.to_s);
  if (!fit) return tl::unexpected(fit.error());
  part.fit = *fit;
  part.from_s = std::max(fit->settled_s(), depth.t_s.front());
  if (part.to_s - part.from_s < kLeastSteady_s) {
    return failure(
        ErrorCode::Unsupported,
        fmt::format("the fall does not become steady in view: 95 % of its speed needs about {:.1f} s; "
                    "film deeper water or a longer drop",
                    fit->settled_s() - fit->start_s));
  }
  return part;
}

/// The steady part cut to whole rocks of the body, so that a rocking fall is not read over half a swing.
struct Rocking {
  double frequency_Hz = 0.0;
  double angle_deg = 0.0;  ///< peak to peak of the fitted motion
};

std::optional<Rocking> findRocking(const Series& pitch) {
  PeriodicFitOptions options;
  options.lowest_Hz = 1.0 / std::max(pitch.span_s(), 1e-3);
  options.highest_Hz = 0.4 / std::max(pitch.spacing_s(), 1e-4);
  options.harmonics = 2;
  const auto fit = fitPeriodic(withoutRunningMean(pitch, pitch.span_s()), options);
  if (!fit || fit->chance > kChanceAllowed) return std::nullopt;
  return Rocking{fit->frequency_Hz, 2.0 * fit->amplitudes.front()};
}

double wholeRocksEnd(const SteadyPart& part, const std::optional<Rocking>& rocking) {
  if (!rocking) return part.to_s;
  const double cycles = std::floor((part.to_s - part.from_s) * rocking->frequency_Hz);
  return cycles >= 1.0 ? part.from_s + cycles / rocking->frequency_Hz : part.to_s;
}

/// +1 where the nose points along the pull through most of the steady part, else −1.
double facing(const PassTraces& traces, const SteadyPart& part) {
  return median(traces.bodyAlong.between(part.from_s, part.to_s).y) < 0.0 ? -1.0 : 1.0;
}

/// Pitch, nose down positive, as seen by a lure that heads where it faces.
Series pitchOf(const PassTraces& traces, double face) {
  Series pitch;
  for (std::size_t i = 0; i < traces.frames(); ++i) {
    const double raw = std::atan2(-traces.bodyUp.y[i], face * traces.bodyAlong.y[i]) * kDegreesPerRadian;
    const double before = pitch.empty() ? raw : pitch.y.back();
    pitch.add(traces.axis.t_s[i], before + std::remainder(raw - before, 360.0));
  }
  return pitch;
}

double range(const std::vector<double>& v) {
  const auto [low, high] = std::minmax_element(v.begin(), v.end());
  return *high - *low;
}

struct Heading {
  int changesOfSide = 0;
  bool shortens = false;  ///< the body looks short while it changes sides: it turns past the camera
};

/// How often nose and tail trade sides during the fall.
Heading headingOf(const PassTraces& traces, const SteadyPart& part) {
  const Series along = traces.bodyAlong.between(part.from_s, part.to_s);
  const Series up = traces.bodyUp.between(part.from_s, part.to_s);
  double longest = 0.0;
  double shortest = 1e300;
  for (std::size_t i = 0; i < along.size(); ++i) {
    const double seen = std::hypot(along.y[i], up.y[i]);
    longest = std::max(longest, seen);
    shortest = std::min(shortest, seen);
  }
  Heading out;
  int side = 0;
  for (double a : along.y) {
    const int now = a > kSideHysteresis * longest ? 1 : a < -kSideHysteresis * longest ? -1 : 0;
    if (now == 0) continue;
    if (side != 0 && now != side) ++out.changesOfSide;
    side = now;
  }
  out.shortens = shortest < kForeshortened * longest;
  return out;
}

std::string modeOf(const PassTraces& traces, const SteadyPart& part, const Series& pitch,
                   const std::optional<Rocking>& rocking, double glide, const Thresholds& from) {
  const Heading heading = headingOf(traces, part);
  const bool spirals = heading.changesOfSide >= 2 && heading.shortens;
  if (!spirals && range(pitch.between(part.fit.start_s, part.to_s).y) >= kTumbleFrom_deg) return "tumble";
  if (spirals) return "spiral";
  if (rocking && rocking->angle_deg > from.flutterFrom_deg) return "flutter";
  return std::abs(glide) > from.glideFrom ? "glide" : "plumb";
}

void readRate(const PassTraces& traces, const SteadyPart& part, const LineFit& down, ReadingSheet& sheet) {
  Estimate rate;
  rate.value = down.slope;
  const double ends = placeDifferenceU95(traces) / (part.to_s - part.from_s);
  rate.setUncertainty({{UncertaintySource::Scatter, down.slopeU95},
                       {UncertaintySource::Scale, down.slope * traces.scaleRelativeU95},
                       {UncertaintySource::Marks, ends}});
  rate.n = static_cast<double>(down.n);
  rate.grade = gradeOf(rate.value, rate.u95);
  rate.notes.push_back(fmt::format("steady from {:.2f} s to {:.2f} s ({})", part.from_s, part.to_s,
                                   part.landed ? "just before the bottom" : "the end of the clip"));
  sheet.give(ReadingId::FallRate, rate);
  sheet.evidence().steady = {part.from_s, part.to_s};
  sheet.evidence().line = FittedLine{{part.from_s, part.to_s}, -down.at(part.from_s), -down.at(part.to_s)};

  Estimate countdown = rate;
  countdown.scale(1000.0 / (rate.value * rate.value));  // d(1/v) = dv / v²
  sheet.give(ReadingId::TimePerMetre, countdown);

  Estimate settle;
  settle.value = part.fit.settleDistance();
  const double fitted = std::hypot(part.fit.speedSd / part.fit.steadySpeed,
                                   part.fit.timeConstantSd_s / part.fit.timeConstant_s);
  // It is told by how far the steady line lies behind the start, of which it is a multiple.
  const double behind = TerminalFall::kSettledOverLag * placeDifferenceU95(traces);
  settle.setUncertainty({{UncertaintySource::Scatter, kNormal95 * settle.value * fitted},
                         {UncertaintySource::Marks, behind},
                         {UncertaintySource::Scale, settle.value * traces.scaleRelativeU95}});
  settle.n = rate.n;
  settle.grade = gradeOf(settle.value, settle.u95);
  sheet.give(ReadingId::SettleDistance, settle);
}

void readGlide(const LineFit& down, const LineFit& side, double face, ReadingSheet& sheet) {
  Estimate ratio;
  ratio.value = face * side.slope / down.slope;
  const double plumb = (1.0 + ratio.value * ratio.value) * kPlumbU95_deg / kDegreesPerRadian;
  ratio.setUncertainty(
      {{UncertaintySource::Scatter, std::hypot(side.slopeU95, ratio.value * down.slopeU95) / down.slope},
       {UncertaintySource::Plumb, plumb}});
  ratio.n = static_cast<double>(down.n);
  ratio.grade = ratio.u95 < 0.03 ? Grade::Good : gradeOf(ratio.value, ratio.u95);
  sheet.give(ReadingId::GlideRatio, ratio);

  Estimate angle = ratio;
  angle.scale(kDegreesPerRadian / (1.0 + ratio.value * ratio.value));
  angle.value = std::atan2(down.slope, std::abs(side.slope)) * kDegreesPerRadian;
  sheet.give(ReadingId::GlideAngle, angle);
}

/// How far a path sways about a straight line near a time.
double swayAbout(const Series& path, double time_s) {
  const Series near = path.between(time_s - kAboutEnd_s, time_s + kAboutEnd_s);
  const auto line = fitLine(near);
  if (!line) return 0.0;
  double out = 0.0;
  for (std::size_t i = 0; i < near.size(); ++i)
    out = std::max(out, std::abs(near.y[i] - line->at(near.t_s[i])));
  return out;
}

void readTravel(const PassTraces& traces, const SteadyPart& part, ReadingSheet& sheet) {
  // Where the tail was lost on the way, the nose alone knows where it got to; the body may have turned by
  // then.
  const bool byNose =
      !traces.alongNose.empty() && traces.alongNose.t_s.back() > traces.alongCentre.t_s.back() + kTailLost_s;
  const Series& path = byNose ? traces.alongNose : traces.alongCentre;
  const double end = byNose ? path.t_s.back() : part.landed ? part.to_s + kBeforeBottom_s : part.to_s;
  const Series fall = path.between(std::max(part.fit.start_s, path.t_s.front()), end);
  if (fall.size() < 2) return;
  Estimate e;
  e.value = std::abs(fall.y.back() - fall.y.front());
  // Where the fall begins and ends is not known to the frame, and the body sways meanwhile.
  e.setUncertainty(
      {{UncertaintySource::Marks, placeDifferenceU95(traces)},
       {UncertaintySource::Scale, e.value * traces.scaleRelativeU95},
       {UncertaintySource::Scatter,
        std::max((byNose ? kTurned_bodies : kSways_bodies) * traces.bodyLength, swayAbout(path, end))}});
  e.n = static_cast<double>(fall.size());
  e.grade = gradeOf(e.value, e.u95);
  sheet.give(ReadingId::FallTravel, e);
}

void readAttitude(const PassTraces& traces, const SteadyPart& part, const Series& pitch,
                  const std::optional<Rocking>& rocking, const std::string& mode, ReadingSheet& sheet) {
  if (mode == "tumble" || mode == "spiral") {
    sheet.refuse(ReadingId::FallAttitude,
                 fmt::format("the lure falls in a {}: it has no lasting attitude", mode));
    return;
  }
  const Series steady = pitch.between(part.from_s, part.to_s);
  if (steady.empty()) return;
  const double rocks = rocking ? std::floor(steady.span_s() * rocking->frequency_Hz + 0.5) : kMeanBlocks;
  const auto blocks = static_cast<std::size_t>(std::clamp(rocks, 1.0, kMeanBlocks));
  sheet.give(ReadingId::FallAttitude, meanBodyAngle(steady, blocks, traces));
}

/// The tail's kick on the way down, once the fall is steady.
void readFallKick(const PassTraces& traces, const SteadyPart& part, ReadingSheet& sheet) {
  const Series kick = traces.kick.between(part.from_s, part.to_s);
  if (traces.kick.empty()) return;
  const Swing tip = kickOf(traces);
  const auto found = findSwinging(kick, tip);
  if (!found) {
    for (const ReadingId id : {ReadingId::FallKickFrequency, ReadingId::FallKickAngle})
      sheet.refuse(id, found.error().message);
    return;
  }
  sheet.give(ReadingId::FallKickFrequency, rateOf(*found, tip));
  sheet.give(ReadingId::FallKickAngle, angleOf(*found, tip));
}

/// When it has turned by one half more, in turns: a body is faster broadside than edge on, but every half
/// turn is like the other.
Series halfTurns(const Series& pitch_deg) {
  Series out;
  const double way = pitch_deg.y.back() < pitch_deg.y.front() ? -1.0 : 1.0;
  double next = 0.0;
  for (std::size_t i = 1; i < pitch_deg.size(); ++i) {
    const double before = way * (pitch_deg.y[i - 1] - pitch_deg.y.front()) / 360.0;
    const double now = way * (pitch_deg.y[i] - pitch_deg.y.front()) / 360.0;
    for (; now >= next; next += 0.5) {
      const double share = now > before ? std::clamp((next - before) / (now - before), 0.0, 1.0) : 0.0;
      out.add(pitch_deg.t_s[i - 1] + share * (pitch_deg.t_s[i] - pitch_deg.t_s[i - 1]), next);
    }
  }
  return out;
}

/// How the body rocks about its mean attitude, or turns right over.
void readTurning(const PassTraces& traces, const SteadyPart& part, const Series& pitch,
                 const std::string& mode, ReadingSheet& sheet) {
  const Series steady = pitch.between(part.from_s, part.to_s);
  if (mode == "tumble") {
    const auto turning = fitLine(steady);
    const auto halves = fitLine(halfTurns(steady));
    if (!turning || !halves)
      return sheet.refuse(ReadingId::TumbleRate, "it turns over less than once in view");
    Estimate e;
    e.value = std::abs(turning->slope) / 360.0;
    e.setUncertainty({{UncertaintySource::Scatter, halves->slopeU95},
                      {UncertaintySource::Marks, kTurnEnds / std::max(steady.span_s(), 1e-3)}});
    e.n = e.value * steady.span_s();
    e.grade = gradeOf(e.value, e.u95);
    sheet.give(ReadingId::TumbleRate, e);
  } else {
    sheet.refuse(ReadingId::TumbleRate, "it does not turn right over");
  }
  if (mode == "tumble" || mode == "spiral") {
    for (const ReadingId id : {ReadingId::FallRockFrequency, ReadingId::FallRockAngle})
      sheet.refuse(id, fmt::format("the lure falls in a {}: it has no lasting attitude to rock about", mode));
    return;
  }
  const Swing body{"rock", traces.bodyLength, traces.unitPerPixel, traces.frameRate_Hz};
  const auto rock = findSwinging(steady, body);
  if (!rock) {
    for (const ReadingId id : {ReadingId::FallRockFrequency, ReadingId::FallRockAngle})
      sheet.refuse(id, rock.error().message);
    return;
  }
  sheet.give(ReadingId::FallRockFrequency, rateOf(*rock, body));
  sheet.give(ReadingId::FallRockAngle, angleOf(*rock, body));
}

/// How often it goes round, and how wide.
void readSpiral(const PassTraces& traces, const SteadyPart& part, const std::string& mode,
                ReadingSheet& sheet) {
  if (mode != "spiral") {
    for (const ReadingId id : {ReadingId::SpiralRate, ReadingId::SpiralRadius})
      sheet.refuse(id, "it does not spiral");
    return;
  }
  const Swing turn{"turn", 1.0, 1.0 / kDegreesPerRadian, traces.frameRate_Hz};
  const auto turning = findSwinging(traces.bodyAlong.between(part.from_s, part.to_s), turn);
  if (!turning) {
    for (const ReadingId id : {ReadingId::SpiralRate, ReadingId::SpiralRadius})
      sheet.refuse(id, turning.error().message);
    return;
  }
  sheet.give(ReadingId::SpiralRate, rateOf(*turning, turn));
  const Series sway =
      withoutRunningMean(traces.alongCentre.between(part.from_s, part.to_s), 1.0 / turning->fit.frequency_Hz);
  Estimate radius = medianSwing(*turning, sway, turn, kMarkMoveU95.value() * traces.unitPerPixel);
  radius.scale(0.5);
  radius.alsoUnsureBy({UncertaintySource::Scale, radius.value * traces.scaleRelativeU95});
  sheet.give(ReadingId::SpiralRadius, radius);
}

}  // namespace

void readFall(const PassTraces& traces, View view, ReadingSheet& sheet, const Thresholds& thresholds) {
  if (traces.frames() < 3 || view != View::Side) return;
  const Series depth = depthOf(traces);
  auto part = findSteadyPart(traces, depth);
  if (!part) {
    for (const ReadingId id : kSteadyNames) sheet.refuse(id, part.error().message);
    sheet.refuse(ReadingId::FallMode, part.error().message);
    sheet.refuse(ReadingId::FallTravel, part.error().message);
    return;
  }
  readTravel(traces, *part, sheet);
  readFallKick(traces, *part, sheet);
  const double face = facing(traces, *part);
  const Series pitch = pitchOf(traces, face);
  const auto rocking = findRocking(pitch.between(part->from_s, part->to_s));
  part->to_s = wholeRocksEnd(*part, rocking);

  const auto down = fitLine(depth.between(part->from_s, part->to_s));
  const auto side = fitLine(traces.alongCentre.between(part->from_s, part->to_s));
  if (!down || !side || down->slope <= 0.0) {
    for (const ReadingId id : kSteadyNames) sheet.refuse(id, "too few frames show the steady part");
    return;
  }
  readRate(traces, *part, *down, sheet);
  readGlide(*down, *side, face, sheet);
  const std::string mode =
      modeOf(traces, *part, pitch, rocking, face * side->slope / down->slope, thresholds);
  sheet.give(ReadingId::FallMode, mode,
             {fmt::format("thresholds: tumble {:.0f}°, flutter {:.0f}°, glide {:.2f}", kTumbleFrom_deg,
                          thresholds.flutterFrom_deg, thresholds.glideFrom)},
             static_cast<double>(down->n));
  readAttitude(traces, *part, pitch, rocking, mode, sheet);
  readTurning(traces, *part, pitch, mode, sheet);
  readSpiral(traces, *part, mode, sheet);
}

}  // namespace fin
