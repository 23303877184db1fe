// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/scaling.h"

#include "core/readings/registry.h"

namespace fin {

Scaling scalingOf(ReadingId reading) {
  using enum ReadingId;
  switch (reading) {
    case SideSwitch:
    case FlashShare:
    case RattleShare:
      return Scaling::Share;
    case RollList:
    case SpinTurns:
    case TwistPerMetre:
    case Breakouts:
    case RiseRate:
    case GlideRatio:
    case GlideAngle:
    case FallTravel:
    case FallAttitude:
    case TwitchCount:
    case PauseDrift:
    case PauseAttitude:
    case RisePerTwitch:
    case StandAngle:
    case HopCount:
    case DragTurning:
    case DragKick:
    case CourseAngle:
    case CourseBend:
    case BeatCoherence:
    case RattlesPerTwitch:
    case FlashesPerTwitch:
      return Scaling::Difference;
    default:
      break;
  }
  const std::string_view unit = unitOf(reading);
  return unit == "%" || unit == "dB" || unit == "text" ? Scaling::Difference : Scaling::Ratio;
}

double stepOf(ReadingId reading) {
  using enum ReadingId;
  return reading == TwitchCount || reading == HopCount || reading == Breakouts ? 1.0 : 0.0;
}

int lengthsIn(ReadingId reading) {
  const std::string_view unit = unitOf(reading);
  if (unit == "mm" || unit == "mm/s") return 1;
  if (unit == "mm²") return 2;
  return unit.ends_with("/m") ? -1 : 0;
}

}  // namespace fin
