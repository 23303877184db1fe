// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/registry.h"

#include <algorithm>
#include <array>

namespace fin {
namespace {

using enum MarkName;
using enum ReadingId;
using Views = std::vector<View>;
using Marks = std::vector<MarkName>;

const Views kTop{View::Top};
const Views kSide{View::Side};
const Views kTankViews{View::Side, View::Top};
const Views kSideViews{View::Side, View::Chase};
const Views kTwitchViews{View::Side, View::Top, View::Chase};
const Views kRollViews{View::HeadOn, View::Side};
const Views kAll{View::Side, View::Top, View::HeadOn, View::Chase};
const Views kNotHeadOn{View::Side, View::Top, View::Chase};
const Marks kBody{Nose, Tail};
const Marks kKick{Nose, Tail, Tip};
const Marks kBlade{Nose, Tail, Blade};
const Marks kMid{Nose, Tail, Mid};
const Marks kNone{};

constexpr bool kNeedsScale = true;

ReadingSpec spec(ReadingId id, std::string_view unit, Views views, Marks marks, bool scale,
                 std::string_view definition) {
  return {id, unit, std::move(views), std::move(marks), scale, false, false, definition};
}

/// Neither read nor refused where a pass lacks what is asked with it.
ReadingSpec with(AskedWith what, ReadingSpec spec) {
  spec.askedWith = what;
  return spec;
}

ReadingSpec ownScale(const Views& views) {
  return with(
      AskedWith::OwnLength,
      spec(OwnScale, "px/mm", views, kBody, false,
           "The longest that nose to tail look in every wobble (every half second without one), less what "
           "noise adds, its median, over the lure's own length."));
}

std::vector<ReadingSpec> retrieve() {
  std::vector<ReadingSpec> specs{
      spec(TravelSpeed, "mm/s", kNotHeadOn, kBody, kNeedsScale,
           "A straight line is laid through the place of the body's centre (midway between nose and tail) "
           "along "
           "the pull against true time; its slope is the speed."),
      spec(WobbleFrequency, "Hz", kAll, kBody, false,
           "From above: the angle of the line from tail to nose, less its own mean over one wobble, is "
           "fitted with "
           "one repeating motion of free shape; its rate is the reading. From the side: the rate at which "
           "the body "
           "looks shorter, or half of it, as rules decide. From ahead: the rate at which the tail swings "
           "beside the "
           "nose."),
      spec(WobbleAngle, "deg", kAll, kBody, false,
           "From the side, by how much shorter it looks; from above: in every whole wobble the widest swing "
           "to one side and to the other is taken from the angle of "
           "the "
           "body; the reading is the middle one of all wobbles, peak to peak."),
      spec(TailSweep, "mm", kTop, kBody, kNeedsScale,
           "How far the tail moves across in every whole wobble, less its mean over one wobble; "
           "the "
           "reading is the middle one."),
      spec(Strouhal, "", kTop, kBody, kNeedsScale,
           "Wobbles per second times tail sweep over travel speed. Most fish swim at 0.2 to 0.4: context, "
           "not a "
           "score."),
      spec(
          RollFrequency, "Hz", kRollViews, kNone, false,
          "How the body lies about its own axis is taken from the line from belly to back (head-on), or from "
          "how far the flank spot lies off the outline's mid line (side). The rate at which it rocks."),
      spec(RollAngle, "deg", kRollViews, kNone, false, "The middle one of all whole rolls, peak to peak."),
      spec(RollList, "deg", kRollViews, kNone, false,
           "The mean roll over whole cycles: how far it lays over, towards its own right positive."),
      spec(SpinTurns, "turns", kRollViews, kNone, false,
           "Whole turns of the roll, 0 when it only rocks. A spot that hides for half of each turn still "
           "counts "
           "them."),
      spec(TwistPerMetre, "turns/m", kSide, kBody, kNeedsScale,
           "Turns over the way travelled: what it does to the line."),
      spec(KickFrequency, "Hz", kNotHeadOn, kKick, false,
           "The angle of the line from tail to tip against the body is fitted with one repeating motion of "
           "free "
           "shape. The rate of that motion is the reading."),
      spec(KickAngle, "deg", kNotHeadOn, kKick, false,
           "In every whole kick the widest bend to one side and to the other; the reading is the middle one "
           "of all "
           "kicks, peak to peak."),
      spec(CycleVariation, "%", kAll, kBody, false,
           "How unequal the single wobbles (or kicks, where no wobble is seen) are in length: the spread of "
           "their "
           "lengths over the middle one. Small is a steady action, large a hunting one."),
      spec(Breakouts, "per 10 s", kTop, kBody, false,
           "How often the body's path, averaged over one wobble, leaves its own middle of three seconds by "
           "more "
           "than half the tail sweep and comes back."),
      spec(RunningDepth, "mm", kSide, kBody, kNeedsScale,
           "The mean depth of the body's centre straight under the marked waterline."),
      spec(RiseRate, "mm/s", kSide, kBody, kNeedsScale,
           "A straight line is laid through the height of the body's centre against true time; its slope is "
           "the "
           "reading, upwards positive."),
      spec(FlashRate, "Hz", kAll, kNone, false,
           "The rate at which the lure's brightness repeats, in its outline or between its marks."),
      ownScale(kNotHeadOn),
      with(AskedWith::PullLine, spec(CourseAngle, "deg", kTop, kBody, false,
                                     "A straight line through the body's centre, against the marked line of "
                                     "the pull; to the lure's own "
                                     "right positive.")),
      with(AskedWith::PullLine, spec(CourseSway, "mm", kTop, kBody, kNeedsScale,
                                     "How far the path, averaged over a wobble, strays to both sides of that "
                                     "line: 5 to 95 % of it.")),
      with(AskedWith::PullLine, spec(CourseBend, "deg", kTop, kBody, false,
                                     "The course of the last third less that of the first.")),
      with(AskedWith::Outline, spec(SurfaceShare, "%", kSide, kNone, kNeedsScale,
                                    "The share of the time in which the outline's top is within 15 mm of the "
                                    "waterline.")),
      with(AskedWith::Blade, spec(BladeFrequency, "Hz", kTankViews, kBlade, false,
                                  "The rate at which the line from tail to blade swings against the body.")),
      with(AskedWith::Blade,
           spec(BeatRatio, "", kTankViews, kBlade, false, "Beats of the blade to one wobble of the body.")),
      with(AskedWith::Blade, spec(BeatCoherence, "", kTankViews, kBlade, false,
                                  "How firmly the blade's phase and the body's go together, n to m as they "
                                  "nearly beat: 1 is locked, 0 "
                                  "is by chance.")),
      with(AskedWith::Blade, spec(BeatClass, "text", kTankViews, kBlade, false,
                                  "In step where that is 0.9 or more and fewer than 5 % of pairs shifted in "
                                  "time reach it; out of step "
                                  "below 0.9.")),
  };
  for (ReadingSpec& s : specs) {
    s.needsWaterline = s.id == RunningDepth || s.id == SurfaceShare;
    s.needsOutline = s.id == SurfaceShare;
  }
  return specs;
}

std::vector<ReadingSpec> fall() {
  return {
      spec(FallRate, "mm/s", kSide, kBody, kNeedsScale,
           "A fall from rest nears a steady speed. That approach is fitted; from where 95 % of the steady "
           "speed "
           "is passed to just before the bottom, a straight line through the depth gives the rate."),
      spec(TimePerMetre, "s/m", kSide, kBody, kNeedsScale,
           "1000 over the fall rate: the countdown for one metre of depth."),
      spec(SettleDistance, "mm", kSide, kBody, kNeedsScale,
           "How far it drops until 95 % of the steady speed is reached: 1.164 times steady speed times the "
           "time "
           "constant of the fitted approach."),
      spec(
          GlideRatio, "", kSide, kBody, false,
          "Distance to the side over distance down in the steady part; positive when it leads with the nose, "
          "negative when it backs away."),
      spec(GlideAngle, "deg", kSide, kBody, false,
           "Angle of the path below the horizontal in the steady part; 90 is straight down."),
      spec(FallTravel, "mm", kSide, kBody, kNeedsScale, "Net distance to the side over the whole fall."),
      spec(FallAttitude, "deg", kSide, kBody, false,
           "Mean angle of the body in the steady part, nose down positive."),
      spec(FallRockFrequency, "Hz", kSide, kBody, false,
           "The rate at which the body rocks about its mean attitude in the steady part."),
      spec(FallRockAngle, "deg", kSide, kBody, false,
           "The middle one of all whole rocks in the steady part, peak to peak."),
      spec(FallKickFrequency, "Hz", kSide, kKick, false,
           "The rate of the tail's kick against the body, in the steady part of the fall."),
      spec(FallKickAngle, "deg", kSide, kKick, false,
           "The middle one of all whole kicks in the steady part, peak to peak."),
      spec(SpiralRate, "Hz", kSide, kBody, false,
           "The rate at which nose and tail trade sides and back: turns of the heading per second."),
      spec(SpiralRadius, "mm", kSide, kBody, kNeedsScale,
           "Half of how far the path sways across, the middle one of all turns."),
      spec(TumbleRate, "Hz", kSide, kBody, false,
           "Whole turns of the body per second: the slope of a straight line through its unwrapped angle."),
      spec(
          FallMode, "text", kSide, kBody, false,
          "Tumble if the body turns right over; else spiral if nose and tail trade sides; else flutter if it "
          "rocks by more than 30 degrees; else glide if it goes more than 0.35 to the side for 1 down; else "
          "plumb."),
      spec(
          FallFlashRate, "1/s", kSide, kBody, false,
          "How often in the steady part the lure's brightness rises over its median by four times its spread "
          "and a tenth."),
      ownScale(kSide),
  };
}

std::vector<ReadingSpec> twitchLike(bool walking) {
  const Views& views = walking ? kTop : kTwitchViews;
  std::vector<ReadingSpec> specs{
      spec(TwitchCount, "", views, kBody, false,
           "A twitch starts when the speed along the pull rises through a quarter of the clip's fast speed "
           "(its 95th "
           "percentile), after it was slow."),
      spec(TwitchInterval, "s", views, kBody, false, "The middle one of the times from start to start."),
      spec(TwitchIntervalVariation, "%", views, kBody, false,
           "How unequal these times are: their standard deviation over their mean. It is the tester's own "
           "steadiness."),
      spec(Advance, "mm", views, kBody, kNeedsScale,
           "How far along the pull a twitch comes before it first falls back or rests; the middle one of all "
           "twitches."),
      spec(SpringBack, "mm", views, kBody, kNeedsScale,
           "From the furthest place to the rearmost one after it, before the next start; the middle one."),
      spec(SpringBackRatio, "%", views, kBody, false,
           "Spring-back over advance, the middle one of all twitches."),
      spec(SpringBackTime, "s", views, kBody, false,
           "From the furthest place to nine tenths of the way to the rearmost; the middle one."),
      spec(StopTime, "s", views, kBody, false,
           "From the greatest speed of a twitch to a tenth of it; the middle one. A dead stop is short."),
      spec(StopDistance, "mm", views, kBody, kNeedsScale, "How far it goes on in that time; the middle one."),
      spec(DartSpread, "deg", views, kBody, false,
           "How far the directions of the twitches, start to furthest place, spread: their circular standard "
           "deviation."),
      spec(Erraticness, "%", views, kBody, false,
           "The paths of all twitches, start to furthest place, are laid over each other at 20 equal steps "
           "and scaled "
           "to their advance; the mean distance between two of them. The same each time is near 0."),
      spec(PauseDrift, "mm/s", kSideViews, kBody, kNeedsScale,
           "A straight line through the height in the still part of every pause, from 0.2 s after the "
           "rearmost place; "
           "the middle slope, upwards positive."),
      spec(PauseClass, "text", kSideViews, kBody, kNeedsScale,
           "Rises or sinks by more than 10 mm/s, or holds."),
      spec(PauseAttitude, "deg", kSideViews, kBody, false,
           "The body's mean angle over the same parts, nose down positive; the middle one."),
      spec(RisePerTwitch, "mm", kSideViews, kBody, kNeedsScale,
           "Change of height from one start to the next."),
      spec(FlashesPerTwitch, "", views, kBody, false,
           "How often the lure's brightness rises over its median by four times its spread and a tenth, over "
           "the twitches."),
      spec(FlashShare, "%", views, kBody, false, "The share of twitches with such a flash."),
      spec(ZoneTime, "s", kSideViews, kBody, kNeedsScale,
           "Measured twitches, drawn whole again and again, lead the lure through the water before a fish; "
           "the "
           "mean of the seconds that it is in there."),
      spec(ZoneTenth, "s", kSideViews, kBody, kNeedsScale,
           "Of the same: in one of ten runs it is there no longer than this."),
      ownScale(kNotHeadOn),
      with(AskedWith::Sound,
           spec(RattleShare, "%", kAll, kBody, false,
                "The share of twitches with a knock from 0.05 s before their start to 0.6 s, or 45 % "
                "of the time between twitches, after it.")),
      with(AskedWith::Sound,
           spec(RattleDelay, "s", kAll, kBody, false, "From a twitch's start to its first knock; median.")),
      with(AskedWith::Sound,
           spec(RattlesPerTwitch, "", kAll, kBody, false, "Knocks in those windows over the twitches.")),
  };
  if (walking) {
    specs.push_back(spec(SideSwitch, "%", kTop, kBody, false,
                         "The share of twitches that go to the other side than the one before."));
    specs.push_back(
        spec(SwingAngle, "deg", kTop, kBody, false, "The middle angle between one direction and the next."));
  }
  return specs;
}

std::vector<ReadingSpec> skirt() {
  std::vector<ReadingSpec> specs{
      spec(FlareMoving, "mm²", kNotHeadOn, kNone, kNeedsScale,
           "The middle one of the outline's areas while the lure moves, up to shortly before it stops."),
      spec(FlareRest, "mm²", kNotHeadOn, kNone, kNeedsScale,
           "The middle one of the outline's areas over the last second, at rest."),
      spec(FlarePeakRatio, "", kNotHeadOn, kNone, false,
           "The largest area within a second after the stop, over the area while moving."),
      spec(FlareHalfLife, "s", kNotHeadOn, kNone, false,
           "From the widest opening until half of what it opened has gone."),
      spec(Quiver, "%", kNotHeadOn, kNone, false,
           "How much of the outline changes in a sixtieth of a second at rest: the area that is in one "
           "outline "
           "and not in the other, over the area."),
  };
  for (ReadingSpec& s : specs) s.needsOutline = true;
  return specs;
}

std::vector<ReadingSpec> rest() {
  std::vector<ReadingSpec> specs{
      spec(StandAngle, "deg", kSide, kBody, false,
           "The body's mean angle above the bottom, from touch-down until it lies down or the view ends."),
      spec(StandTime, "s", kSide, kBody, false,
           "From touch-down until the body's angle above the bottom falls below 30°, or until the view "
           "ends.")};
  // What lies on the bottom may wear a skirt.
  for (ReadingSpec& spec : skirt()) specs.push_back(std::move(spec));
  return specs;
}

std::vector<ReadingSpec> still() {
  std::vector<ReadingSpec> specs{
      spec(BodyBend, "%", kNotHeadOn, kBody, false,
           "The middle between the two sides of the outline, from tail to nose, as a smooth curve; how far "
           "that "
           "strays from its chord, over its length. 0 is straight."),
      with(AskedWith::Hook, spec(HookOffset, "%", kNotHeadOn, {Nose, Tail, Hook}, false,
                                 "How far the hook's mark lies beside that curve, over the body's length."))};
  for (ReadingSpec& s : specs) s.needsOutline = true;
  return specs;
}

std::vector<ReadingSpec> sound() {
  return {
      spec(
          RattleLevel, "dB", kAll, kNone, false,
          "The loudness in the window, weighted as the ear hears it, over that of the marked quiet stretch."),
      spec(RattleRate, "1/s", kAll, kNone, false,
           "How often the sound rises by more than 10 dB over its background."),
      spec(RattlePeakFrequency, "Hz", kAll, kNone, false,
           "The strongest peak of the knocks' spectrum over that of the stretches between them.")};
}

std::vector<ReadingSpec> hop() {
  return {
      spec(HopCount, "", kSide, kBody, false,
           "A hop starts when the speed upwards rises through a quarter of the clip's fast speed (its 95th "
           "percentile), after it was slow."),
      spec(HopInterval, "s", kSide, kBody, false, "The middle one of the times from start to start."),
      spec(HopIntervalVariation, "%", kSide, kBody, false,
           "How unequal these times are: their standard deviation over their mean. It is the tester's own "
           "steadiness."),
      spec(HopHeight, "mm", kSide, kBody, kNeedsScale,
           "The highest place of a hop over the lowest one before it; the middle one of all hops."),
      spec(FallBackTime, "s", kSide, kBody, false,
           "From the highest place to nine tenths of the way down; the middle one."),
      spec(
          FallBackRate, "mm/s", kSide, kBody, kNeedsScale,
          "A straight line through the height from a fifth to nine tenths of the way down; the middle slope, "
          "downwards positive."),
      spec(HopKickFrequency, "Hz", kSide, kKick, false,
           "The rate of the tail's kick against the body on the way down; the middle one of all hops."),
      spec(HopKickAngle, "deg", kSide, kKick, false,
           "How wide it kicks on the way down, peak to peak; the middle one of all hops."),
      spec(LiftKickFrequency, "Hz", kSide, kKick, false,
           "One rate of the tail's kick for all rises together, each with its own phase and slope."),
      spec(LiftKickAngle, "deg", kSide, kKick, false,
           "How wide it kicks on the way up, peak to peak; median of all rises."),
      with(AskedWith::Levels,
           spec(LowShare, "%", kSide, kBody, false,
                "The share of the time in which the body's centre is in the lowest third of the "
                "way from bottom to waterline.")),
      with(AskedWith::Mid, spec(BodyPulse, "deg", kSide, kMid, false,
                                "How far nose to mid mark bends against mid mark to tail in a hop; median.")),
      ownScale(kSide),
  };
}

std::vector<ReadingSpec> drag() {
  return {
      spec(DragTurning, "deg/m", kTankViews, kBody, kNeedsScale,
           "All swings of the body's angle between the first and the last of its turning points, added up, "
           "over the way pulled in between. A stick gives 0."),
      spec(DragKick, "deg/m", kTankViews, kKick, kNeedsScale,
           "The same of the tail's angle against the body."),
  };
}

std::vector<ReadingSpec> pause() {
  std::vector<ReadingSpec> out;
  for (const ReadingSpec& spec : twitchLike(false)) {
    if (spec.id == PauseDrift || spec.id == PauseClass || spec.id == PauseAttitude) out.push_back(spec);
  }
  return out;
}

/// In the order of the Protocol enumeration.
const std::array<std::vector<ReadingSpec>, 11>& all() {
  static const std::array<std::vector<ReadingSpec>, 11> specs{
      retrieve(), fall(), twitchLike(false), twitchLike(true), rest(), skirt(), sound(),
      hop(),      drag(), pause(),           still()};
  return specs;
}

}  // namespace

std::span<const ReadingSpec> readingsOf(Protocol protocol) {
  return all()[static_cast<std::size_t>(protocol)];
}

bool restsOnPlaces(Protocol protocol, const ReadingSpec& spec) {
  switch (protocol) {
    case Protocol::Retrieve:
      return spec.needsScale || spec.id == ReadingId::Breakouts || spec.askedWith == AskedWith::PullLine;
    case Protocol::Rest:
      return spec.needsScale;
    case Protocol::Fall:
    case Protocol::Twitch:
    case Protocol::Walk:
    case Protocol::Hop:
    case Protocol::Drag:
    case Protocol::Pause:
      return true;  // even an attitude is one in a part of the way
    case Protocol::Skirt:
    case Protocol::Sound:
    case Protocol::Still:
      return false;
  }
  return false;
}

const ReadingSpec* specOf(ReadingId reading) {
  for (const auto& protocol : all()) {
    const auto found = std::find_if(protocol.begin(), protocol.end(),
                                    [reading](const ReadingSpec& s) { return s.id == reading; });
    if (found != protocol.end()) return &*found;
  }
  return nullptr;
}

std::string_view unitOf(ReadingId reading) {
  const ReadingSpec* spec = specOf(reading);
  if (spec != nullptr) return spec->unit;
  switch (reading) {  // what only several passes together tell
    case BodyWeight:
    case KickHead:
      return "g";
    case HoldInterval:
    case LevelInterval:
      return "s";
    default:
      return "mm/s";
  }
}

bool isClass(ReadingId reading) {
  return unitOf(reading) == "text";
}

}  // namespace fin
