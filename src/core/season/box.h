// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/units/result.h"

namespace fin {

/// A lure that may go into the box.
struct BoxLure {
  std::string name;
  std::vector<std::optional<double>> points;  ///< by purpose, 0 to 10; none: not known, or under half known
  std::optional<double> price;                ///< none counts as nothing
  bool owned = false;
};

/// Lures that together cover the purposes.
struct Box {
  std::vector<std::size_t> lures;      ///< rising
  std::vector<std::size_t> uncovered;  ///< purposes that no lure covers at all
  double loss = 0.0;                   ///< weighted mean of what each purpose loses against the rack's best
};
/// The fewest lures that cover every purpose that can be covered: each within `loss` points of the best of
/// the rack; of equals the least weighted mean loss, then the least price. Exact, by branch and bound, for up
/// to 40 lures and 20 purposes. Errors: BadRequest for lists that do not fit, more of them, or weights that
/// are not above nought.
Result<Box> fewestLures(const std::vector<BoxLure>& lures, const std::vector<double>& weights,
                        double loss = 1.0);

/// With only so many slots: the box with the least weighted mean loss, whether or not it covers. Exact.
/// Errors: as above.
Result<Box> bestForSlots(const std::vector<BoxLure>& lures, const std::vector<double>& weights,
                         std::size_t slots);

/// What to buy first: of what is not owned, the one that takes most weighted mean loss off per price. None
/// where nothing helps; a lure without a price is never proposed.
struct Purchase {
  std::size_t lure = 0;
  double saved = 0.0;  ///< weighted mean loss
  double savedPerPrice = 0.0;
};
Result<std::optional<Purchase>> buyFirst(const std::vector<BoxLure>& lures,
                                         const std::vector<double>& weights);

/// How many spares of a lure to take, and how likely that is too few: losses are negative binomial from
/// Gamma(½ + lost, hours) (G. Casella & R. Berger, Statistical Inference, 2002, §4.4).
struct Spares {
  std::size_t take = 0;
  double tooFew = 0.0;
};
/// The fewest with which losing more has at most a chance of 0.1. Errors: BadRequest without hours.
Result<Spares> sparesFor(std::size_t lost, double hours, double hoursAhead);

}  // namespace fin
