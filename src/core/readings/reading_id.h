// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <optional>
#include <string_view>

namespace fin {

/// Everything that a pass, or the pulls of a speed ladder together, can be read for. Defined one by one in
/// registry.cpp. Kept and exchanged by its word (toString), never by its number.
enum class ReadingId {
  TravelSpeed,
  WobbleFrequency,
  WobbleAngle,
  TailSweep,
  Strouhal,
  RollFrequency,
  RollAngle,
  RollList,
  SpinTurns,
  TwistPerMetre,
  KickFrequency,
  KickAngle,
  CycleVariation,
  Breakouts,
  RunningDepth,
  RiseRate,
  FlashRate,
  FallRate,
  TimePerMetre,
  SettleDistance,
  GlideRatio,
  GlideAngle,
  FallTravel,
  FallAttitude,
  FallRockFrequency,
  FallRockAngle,
  FallKickFrequency,
  FallKickAngle,
  SpiralRate,
  SpiralRadius,
  TumbleRate,
  FallMode,
  TwitchCount,
  TwitchInterval,
  TwitchIntervalVariation,
  Advance,
  SpringBack,
  SpringBackRatio,
  SpringBackTime,
  StopTime,
  StopDistance,
  DartSpread,
  Erraticness,
  PauseDrift,
  PauseClass,
  PauseAttitude,
  RisePerTwitch,
  SideSwitch,
  SwingAngle,
  FlareMoving,
  FlareRest,
  FlarePeakRatio,
  FlareHalfLife,
  Quiver,
  StandAngle,
  StandTime,
  RattleLevel,
  RattleRate,
  RattlePeakFrequency,
  HopCount,
  HopInterval,
  HopIntervalVariation,
  HopHeight,
  FallBackTime,
  FallBackRate,
  HopKickFrequency,
  HopKickAngle,
  DragTurning,
  DragKick,
  OnsetSpeed,
  BlowoutSpeed,
};
inline constexpr std::size_t kReadingCount = static_cast<std::size_t>(ReadingId::BlowoutSpeed) + 1;

/// The word for it in the log and in files: fall_rate.
std::string_view toString(ReadingId reading);
std::optional<ReadingId> readingNamed(std::string_view word);

}  // namespace fin
