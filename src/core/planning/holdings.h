// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/readings/reading_id.h"
#include "core/units/ids.h"

namespace fin {

enum class PieceState { Used, Spare, Worn, Lost };

/// This very lure: wear and loss are its own.
struct Piece {
  PieceId id;
  ModelId model;
  int number = 1;  ///< as it is written on it
  PieceState state = PieceState::Used;
  std::optional<double> paid;
  std::string currency;
  std::string note;

  friend bool operator==(const Piece&, const Piece&) = default;
};

/// What a shop asked for a model on a date.
struct Price {
  PriceId id;
  ModelId model;
  double amount = 0.0;
  std::string currency;
  std::string shop;
  std::string date;  ///< yyyy-mm-dd

  friend bool operator==(const Price&, const Price&) = default;
};

/// What is said of a model, as bounds of a reading in its unit: "hangs in the pause", rise_rate −5 to 5.
struct Claim {
  ClaimId id;
  ModelId model;
  std::string words;
  ReadingId reading{};
  std::optional<double> least;
  std::optional<double> most;

  friend bool operator==(const Claim&, const Claim&) = default;
};

/// A pool, a tank, a lake. Its position is the tester's own and is never published.
struct WaterBody {
  WaterId id;
  std::string name;
  std::string position;
  std::string note;
  std::vector<std::string> photos = {};  ///< files

  friend bool operator==(const WaterBody&, const WaterBody&) = default;
};

std::string_view toString(PieceState state);
std::optional<PieceState> pieceStateNamed(std::string_view text);

}  // namespace fin
