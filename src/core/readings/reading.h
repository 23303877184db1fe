// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/readings/reading_id.h"
#include "core/units/estimate.h"

namespace fin {

/// Pause: what lies still between others; only a stretch of a clip is read by it. Still: a lure that is held
/// before the camera, to see how it is rigged.
enum class Protocol { Retrieve, Fall, Twitch, Walk, Rest, Skirt, Sound, Hop, Drag, Pause, Still };
/// In the order in which they are offered.
inline constexpr std::array kAllProtocols{
    Protocol::Retrieve, Protocol::Fall, Protocol::Twitch, Protocol::Walk,  Protocol::Hop,
    Protocol::Drag,     Protocol::Rest, Protocol::Skirt,  Protocol::Still, Protocol::Sound};
enum class View { Side, Top, HeadOn, Chase };

std::string_view toString(Protocol protocol);
std::string_view toString(View view);
std::string_view toString(Grade grade);
std::optional<Protocol> protocolNamed(std::string_view text);
std::optional<View> viewNamed(std::string_view text);

/// One number (or class) that a pass gave, with all that is needed to believe it.
struct Reading {
  ReadingId id{};
  std::variant<double, std::string> value;
  std::string unit;
  std::optional<double> u95;  ///< none for text
  double n = 0.0;
  Grade grade = Grade::Good;
  std::vector<std::string> notes;
  std::vector<UncertaintyPart> parts = {};  ///< of u95, where they are told apart; not kept in the log
  std::optional<std::size_t> stretch = {};  ///< of the clip's stretches, where it has any
};

struct Refusal {
  ReadingId id{};
  std::string why;
  std::optional<std::size_t> stretch = {};
};

/// All that a protocol asks of one pass: every one of its readings stands in exactly one of the two lists.
struct ReadingSet {
  std::vector<Reading> readings;
  std::vector<Refusal> refused;

  [[nodiscard]] const Reading* find(ReadingId id) const;
};

/// Raised whenever a change to a method alters a reported number.
constexpr int kMethodVersion = 14;
/// The method version at which following last changed: tracks made before it are followed anew.
constexpr int kFollowingVersion = 13;

}  // namespace fin
