// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/words.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QLocale>
#include <QStringList>
#include <algorithm>
#include <cmath>
#include <map>

#include "core/readings/registry.h"
#include "core/units/typed_amount.h"

namespace fin::app {
namespace {

PullUnit pullUnit = PullUnit::AsTheUnits;

/// How many of a unit one of the metric is: what is typed and what is shown come from one table.
double per(const char* unit, std::string_view metric) {
  return 1.0 / *typedAmount(std::string("1 ") + unit, metric, metric);
}

ShownUnit shownPull(UnitSystem units) {
  switch (pullUnit) {
    case PullUnit::AsTheUnits:
      break;
    case PullUnit::KilometresPerHour:
      return {per("km/h", "mm/s"), "km/h"};
    case PullUnit::MilesPerHour:
      return {per("mph", "mm/s"), "mph"};
    case PullUnit::Knots:
      return {per("knots", "mm/s"), "knots"};
  }
  return shownUnit("mm/s", units);
}

QString words(const char* text) {
  return QCoreApplication::translate("words", text);
}

struct ReadingName {
  const char* label;  ///< as a tester says it
  const char* term;   ///< the field's own word
};

/// A name for every reading; docs/terms.md has the same, and a test holds the two together.
const std::map<ReadingId, ReadingName>& names() {
  using enum ReadingId;
  static const std::map<ReadingId, ReadingName> table{
      {TravelSpeed, {"Pull speed", "speed through the water"}},
      {WobbleFrequency, {"Wobble rate", "yaw frequency"}},
      {WobbleAngle, {"Wobble width", "yaw, peak to peak"}},
      {TailSweep, {"Tail sweep", "tail displacement, peak to peak"}},
      {Strouhal, {"Swimming number", "Strouhal number"}},
      {RollFrequency, {"Roll rate", "roll frequency"}},
      {RollAngle, {"Roll width", "roll, peak to peak"}},
      {RollList, {"Lean", "mean roll"}},
      {SpinTurns, {"Spins", "full turns about its own axis"}},
      {TwistPerMetre, {"Line twist", "turns per length of pull"}},
      {KickFrequency, {"Kick rate", "tail frequency"}},
      {KickAngle, {"Kick width", "tail angle against the body, peak to peak"}},
      {CycleVariation, {"Hunting", "cycle variation"}},
      {Breakouts, {"Breakouts", "darts out of the line and back"}},
      {RunningDepth, {"Running depth", "mean depth below the surface"}},
      {RiseRate, {"Climb rate", "vertical speed on the pull"}},
      {FlashRate, {"Flash rate", "peaks of brightness"}},
      {FallRate, {"Fall rate", "terminal fall speed"}},
      {TimePerMetre, {"Countdown", "time per length of fall"}},
      {SettleDistance, {"Drop before full speed", "settling distance"}},
      {GlideRatio, {"Glide", "glide ratio"}},
      {GlideAngle, {"Fall angle", "flight path angle below level, 90° is straight down"}},
      {FallTravel, {"Sideways drift", "net horizontal travel"}},
      {FallAttitude, {"Nose-down angle", "mean pitch"}},
      {FallRockFrequency, {"Rock rate on the fall", "pitch frequency"}},
      {FallRockAngle, {"Rock width on the fall", "pitch, peak to peak"}},
      {FallKickFrequency, {"Kick rate on the fall", "tail frequency"}},
      {FallKickAngle, {"Kick width on the fall", "tail angle against the body, peak to peak"}},
      {SpiralRate, {"Spiral rate", "turns of the path"}},
      {SpiralRadius, {"Spiral radius", "half the sway of the path"}},
      {TumbleRate, {"Tumble rate", "turns end over end"}},
      {FallMode, {"How it falls", "fall mode"}},
      {TwitchCount, {"Twitches", "count"}},
      {TwitchInterval, {"Time between twitches", "mean interval"}},
      {TwitchIntervalVariation, {"Uneven cadence", "coefficient of variation of the interval"}},
      {Advance, {"Dart length", "advance per twitch"}},
      {SpringBack, {"Spring-back", "recoil distance"}},
      {SpringBackRatio, {"Spring-back, share of dart", "recoil over advance"}},
      {SpringBackTime, {"Time to spring back", "recoil time"}},
      {StopTime, {"Time to stop", "stopping time"}},
      {StopDistance, {"Stopping distance", "stopping distance"}},
      {DartSpread, {"Dart spread", "circular spread of the headings"}},
      {Erraticness, {"Erratic by", "mean distance between the darts"}},
      {PauseDrift, {"Drift in the pause", "vertical speed in the still part"}},
      {PauseClass, {"In the pause it", "suspends, rises or sinks"}},
      {PauseAttitude, {"Nose-down angle in the pause", "mean pitch"}},
      {RisePerTwitch, {"Climb per twitch", "vertical gain"}},
      {SideSwitch, {"Changes side", "share of twitches to the other side"}},
      {SwingAngle, {"Swing", "mean heading change"}},
      {StandAngle, {"Stands at", "mean pitch at rest"}},
      {StandTime, {"Stands for", "time above 30°"}},
      {FlareMoving, {"Skirt while moving", "projected area"}},
      {FlareRest, {"Skirt at rest", "projected area"}},
      {FlarePeakRatio, {"Skirt opens to", "peak area over swimming area"}},
      {FlareHalfLife, {"Half settled after", "half-life of the flare"}},
      {Quiver, {"Quiver", "change of the outline at rest"}},
      {HopCount, {"Hops", "count"}},
      {HopInterval, {"Time between hops", "mean interval"}},
      {HopIntervalVariation, {"Uneven cadence", "coefficient of variation of the interval"}},
      {HopHeight, {"Hop height", "height above the last low"}},
      {FallBackTime, {"Time to fall back", "descent time"}},
      {FallBackRate, {"Fall-back rate", "descent speed"}},
      {HopKickFrequency, {"Kick rate on the way down", "tail frequency"}},
      {HopKickAngle, {"Kick width on the way down", "tail angle against the body, peak to peak"}},
      {DragTurning, {"Turning on the drag", "heading change per length"}},
      {DragKick, {"Kick on the drag", "tail angle per length"}},
      {OnsetSpeed, {"Starts working at", "onset speed"}},
      {BlowoutSpeed, {"Blows out at", "blow-out speed"}},
      {FlashesPerTwitch, {"Flashes per twitch", "brightness peaks per twitch"}},
      {FlashShare, {"Twitches that flash", "share with a brightness peak"}},
      {FallFlashRate, {"Flashes while falling", "brightness peaks per second, steady fall"}},
      {ZoneTime, {"Stays before a fish", "mean time in the zone"}},
      {ZoneTenth, {"Stays at least, nine in ten", "tenth percentile of the time in the zone"}},
      {BodyBend, {"Body bent by", "greatest offset of the mid line from its chord"}},
      {HookOffset, {"Hook off the middle", "offset of the hook from the mid line"}},
      {HoldInterval, {"Holds its depth, twitched every", "shortest interval with a climb of 5 mm at most"}},
      {LevelInterval, {"Climbs no more, twitched every", "shortest interval without a climb"}},
      {BodyWeight, {"Body weighs in water", "weight in water, negative floats"}},
      {KickFallRate, {"Tail kicks from a fall of", "fall speed at the onset of the kick"}},
      {KickHead, {"Lightest head that kicks", "head weight in water at the onset of the kick"}},
      {OwnScale, {"Lure as ruler", "pixels per mm by its own length"}},
      {CourseAngle, {"Course", "heading of the path against the pull line, right positive"}},
      {CourseSway, {"Sway", "width of the cycle-mean path about its course"}},
      {CourseBend, {"Course change", "course of the last third less the first"}},
      {SurfaceShare, {"Time at the surface", "share of time within 15 mm"}},
      {BladeFrequency, {"Blade rate", "blade frequency"}},
      {BeatRatio, {"Blade beats per wobble", "frequency ratio"}},
      {BeatCoherence, {"Blade and body together", "mean phase coherence"}},
      {BeatClass, {"Blade and body are", "phase locking"}},
      {RattleShare, {"Twitches that rattle", "share with an onset"}},
      {RattleDelay, {"Rattles after", "onset delay"}},
      {RattlesPerTwitch, {"Rattles per twitch", "onsets per twitch"}},
      {LiftKickFrequency, {"Kick rate on the way up", "tail frequency"}},
      {LiftKickAngle, {"Kick width on the way up", "tail angle against the body, peak to peak"}},
      {LowShare, {"Time near the bottom", "share of time in the lowest third"}},
      {BodyPulse, {"Body bend per hop", "bend of the front half against the rear, peak to peak"}},
      {RattleLevel, {"Louder than still water by", "level above the quiet stretch"}},
      {RattleRate, {"Knock rate", "onsets per second"}},
      {RattlePeakFrequency, {"Rattle pitch", "peak of the spectrum"}},
  };
  return table;
}

QString countedThings(const Reading& reading) {
  const QString n = QLocale::c().toString(reading.n, 'f', 0);
  using enum ReadingId;
  const bool cycles = reading.id == WobbleFrequency || reading.id == WobbleAngle || reading.id == TailSweep ||
                      reading.id == Strouhal || reading.id == CycleVariation;
  return (cycles ? words("%1 whole wobbles stand behind it.") : words("%1 frames stand behind it.")).arg(n);
}

int decimalsFor(double uncertainty) {
  if (!(uncertainty > 0.0)) return 1;
  // Two figures where the first is a 1, one otherwise.
  const double exponent = std::floor(std::log10(uncertainty));
  const bool one = uncertainty / std::pow(10.0, exponent) < 1.95;
  return std::clamp(static_cast<int>(-exponent) + (one ? 1 : 0), 0, 4);
}

struct SourceWords {
  const char* name;
  const char* better;
};

SourceWords wordsFor(UncertaintySource source) {
  switch (source) {
    case UncertaintySource::Scatter:
      return {"the scatter of what was seen", "a longer run in view would make it surer"};
    case UncertaintySource::Scale:
      return {"the known length", "a longer known length, in the lure's own plane, would make it surer"};
    case UncertaintySource::Marks:
      return {"the placing of the marks", "filming closer would make it surer"};
    case UncertaintySource::Cycles:
      return {"the unequal length of the cycles", "a longer run in view would make it surer"};
    case UncertaintySource::OutlineEdge:
      return {"the outline's rim", "filming closer would make it surer"};
    case UncertaintySource::Plumb:
      return {"how level the camera stands",
              "a camera set level, or a plumb line in view, would make it surer"};
    case UncertaintySource::FrameTime:
      return {"the time from frame to frame", "a higher filming rate would make it surer"};
    case UncertaintySource::ViewingAngle:
      return {"the angle under which the camera sees it",
              "saying how far the camera stands would make it surer"};
    case UncertaintySource::Background:
      return {"the background", "a background with more detail would make it surer"};
  }
  return {"", ""};
}

/// How much each part has in the square of the uncertainty, the largest first, and what would make it less.
QString sharesOf(const Reading& reading) {
  std::vector<UncertaintyPart> sorted;
  for (const UncertaintyPart& part : reading.parts) {
    const auto same = std::find_if(sorted.begin(), sorted.end(),
                                   [&](const UncertaintyPart& p) { return p.source == part.source; });
    if (same == sorted.end()) {
      sorted.push_back(part);
    } else {
      same->u95 = std::hypot(same->u95, part.u95);
    }
  }
  std::sort(sorted.begin(), sorted.end(),
            [](const UncertaintyPart& a, const UncertaintyPart& b) { return a.u95 > b.u95; });
  const double whole = inQuadrature(sorted);
  if (!(whole > 0.0)) return {};
  QStringList shares;
  for (const UncertaintyPart& part : sorted) {
    const double share = 100.0 * part.u95 * part.u95 / (whole * whole);
    if (share >= 0.5)
      shares << QString("%1 %2 %").arg(words(wordsFor(part.source).name)).arg(share, 0, 'f', 0);
  }
  return words("It comes from: %1; %2.")
      .arg(shares.join(", "), words(wordsFor(sorted.front().source).better));
}

/// A reading's number comes with its unit.
ShownUnit shownAs(ReadingId reading, std::string_view unit, UnitSystem units) {
  if (reading == ReadingId::RattlePeakFrequency) return {1.0, "Hz"};
  if (reading == ReadingId::TravelSpeed || reading == ReadingId::OnsetSpeed ||
      reading == ReadingId::BlowoutSpeed)
    return shownUnit(kPullSpeed, units);
  return shownUnit(unit, units);
}

}  // namespace

QString spokenName(ReadingId reading) {
  const auto found = names().find(reading);
  return found == names().end() ? QString() : words(found->second.label);
}

QString fieldName(ReadingId reading) {
  const auto found = names().find(reading);
  return found == names().end() ? QString() : words(found->second.term);
}

QString spokenName(Protocol protocol) {
  switch (protocol) {
    case Protocol::Retrieve:
      return words("Straight pull");
    case Protocol::Fall:
      return words("Fall");
    case Protocol::Twitch:
      return words("Twitch and pause");
    case Protocol::Walk:
      return words("Walking");
    case Protocol::Rest:
      return words("At rest");
    case Protocol::Skirt:
      return words("Skirt");
    case Protocol::Sound:
      return words("Sound");
    case Protocol::Hop:
      return words("Hopping");
    case Protocol::Drag:
      return words("Dragging");
    case Protocol::Pause:
      return words("Pause");
    case Protocol::Still:
      return words("Held still");
  }
  return {};
}

QString spokenName(View view) {
  switch (view) {
    case View::Side:
      return words("from the side");
    case View::Top:
      return words("from above");
    case View::HeadOn:
      return words("head-on");
    case View::Chase:
      return words("moving along");
  }
  return {};
}

QString spokenName(MarkName mark) {
  switch (mark) {
    case MarkName::Nose:
      return words("Nose");
    case MarkName::Tail:
      return words("Tail");
    case MarkName::Tip:
      return words("Tip");
    case MarkName::Back:
      return words("Back");
    case MarkName::Belly:
      return words("Belly");
    case MarkName::Flank:
      return words("Flank");
    case MarkName::Mid:
      return words("Mid");
    case MarkName::Blade:
      return words("Blade");
    case MarkName::Hook:
      return words("Hook");
  }
  return {};
}

QString spokenName(Grade grade) {
  switch (grade) {
    case Grade::Good:
      return words("good");
    case Grade::Fair:
      return words("fair");
    case Grade::Poor:
      return words("poor");
  }
  return {};
}

QString spokenState(const PlannedPass& pass) {
  switch (pass.state) {
    case PassState::Planned:
      return {};
    case PassState::Done:
      return words("done");
    case PassState::Fouled:
      return words("fouled: %1").arg(QString::fromStdString(pass.whyFouled));
    case PassState::Skipped:
      return words("skipped");
  }
  return {};
}

void showPullsIn(PullUnit unit) {
  pullUnit = unit;
}

ShownUnit shownUnit(std::string_view unit, UnitSystem units) {
  if (unit == kPullSpeed) return shownPull(units);
  if (units == UnitSystem::Imperial) {
    static const double inches = per("in", "mm");
    static const double metres = 1.0 / per("ft", "m");
    static const double ounces = per("oz", "g");
    static const double gallons = per("gal", "l");
    static const double pounds = per("lb", "kg");
    if (unit == "mm") return {inches, "in"};
    if (unit == "mm/s") return {inches, "in/s"};
    if (unit == "mm²") return {inches * inches, "in²"};
    if (unit == "s/m") return {metres, "s/ft"};
    if (unit == "g") return {ounces, "oz"};
    if (unit == "m") return {1.0 / metres, "ft"};
    if (unit == "°C") return {1.8, words("°F"), 32.0};
    if (unit == "l") return {gallons, "gal"};
    if (unit == "kg") return {pounds, "lb"};
    if (unit == "turns/m") return {metres, "turns/ft"};
    if (unit == "deg/m") return {metres, words("°/ft")};
  }
  if (unit == "deg") return {1.0, "°"};
  if (unit == "deg/m") return {1.0, words("°/m")};
  if (unit == "Hz" || unit == "1/s") return {1.0, words("per second")};
  if (unit == "text") return {1.0, words("% of passes")};  // the only number a class has
  return {1.0, QString::fromUtf8(unit.data(), static_cast<qsizetype>(unit.size()))};
}

ShownUnit shownUnit(ReadingId reading, UnitSystem units) {
  return shownAs(reading, unitOf(reading), units);
}

SpokenValue spoken(const Reading& reading, UnitSystem units) {
  const ShownUnit shown = shownAs(reading.id, reading.unit, units);
  if (const auto* text = std::get_if<std::string>(&reading.value))
    return {QString::fromStdString(*text), {}, {}};
  const double value = std::get<double>(reading.value) * shown.factor;
  const double uncertainty = reading.u95.value_or(0.0) * shown.factor;
  const QLocale plain = QLocale::c();
  if (reading.u95 && uncertainty == 0.0 && value == std::round(value))
    return {plain.toString(value, 'f', 0), {}, shown.unit};  // counted, not measured
  const int decimals = decimalsFor(uncertainty);
  QString number = plain.toString(value, 'f', decimals);
  number.replace('-', QChar(0x2212));
  return {number, QString::fromUtf8("± ") + plain.toString(uncertainty, 'f', decimals), shown.unit};
}

QString spokenAs(ReadingId reading, double value, double u95, UnitSystem units) {
  const SpokenValue said = spoken({reading, value, std::string(unitOf(reading)), u95}, units);
  return QString("%1 %2 %3").arg(said.value, said.uncertainty, said.unit).trimmed();
}

QString oddOf(const ClipInfo& clip, std::optional<Hertz> saidRate) {
  QStringList odd;
  for (const std::string& warning : clip.warnings) odd << QString::fromStdString(warning);
  if (clip.writtenRate && saidRate != clip.writtenRate)
    odd << words("the camera wrote that it filmed %1 frames per second").arg(clip.writtenRate->value());
  return odd.isEmpty() ? QString() : odd.join("; ") + ".";
}

QString asSentence(const QString& text) {
  const QString first = text.section(' ', 0, 0);
  const bool word = std::all_of(first.begin(), first.end(), [](QChar c) { return c.isLetter(); });
  return word ? text.left(1).toUpper() + text.mid(1) : text;
}

QString counted(std::size_t count, const QString& one, const QString& many) {
  return QString("%1 %2").arg(count).arg(count == 1 ? one : many);
}

QString spokenAmount(double metric, std::string_view unit, int decimals, UnitSystem units) {
  const ShownUnit shown = shownUnit(unit, units);
  const int finer = shown.factor < 0.01 ? 2 : shown.factor < 0.1 ? 1 : 0;
  return QString("%1 %2").arg(shown.shown(metric), 0, 'f', decimals + finer).arg(shown.unit);
}

QString spokenSpeed(double mm_s, UnitSystem units) {
  return spokenAmount(mm_s, "mm/s", 0, units);
}

QString spokenPull(double mm_s, UnitSystem units) {
  return spokenAmount(mm_s, kPullSpeed, 0, units);
}

QString spokenMoment(double sinceEpoch_s) {
  const auto moment = QDateTime::fromSecsSinceEpoch(static_cast<qint64>(sinceEpoch_s));
  return QLocale::c().toString(moment, "d MMM yyyy, HH:mm");
}

QString spokenOrigin(const Provenance& from) {
  QStringList parts;
  parts << words("From %1, frames %2 to %3: %4 followed, %5 bridged over short gaps.")
               .arg(QString::fromStdString(from.clip.filename().string()))
               .arg(from.firstFrame)
               .arg(from.lastFrame())
               .arg(from.frames.followed)
               .arg(from.frames.bridged);
  const QString method = words("method %1").arg(from.methodVersion);
  parts << (from.madeAt_s > 0.0 ? words("Measured on %1, %2.").arg(spokenMoment(from.madeAt_s), method)
                                : words("Measured by %1; when is not known.").arg(method));
  return parts.join(" ");
}

QString howMeasured(const Reading& reading) {
  QStringList parts{QString("%1 (%2)").arg(spokenName(reading.id), fieldName(reading.id))};
  if (const ReadingSpec* spec = specOf(reading.id)) {
    parts << QString::fromUtf8(spec->definition.data(), static_cast<qsizetype>(spec->definition.size()));
  }
  parts << countedThings(reading);
  if (reading.u95)
    parts << words("The ± holds 95 of 100 such measurements: scatter, scale and placing together.");
  if (const QString shares = sharesOf(reading); !shares.isEmpty()) parts << shares;
  for (const std::string& note : reading.notes) parts << QString::fromStdString(note) + ".";
  return parts.join("\n");
}

}  // namespace fin::app
