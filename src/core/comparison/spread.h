// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace fin {

/// One reading of one rig over its passes. Values and half-widths in the reading's unit.
struct RigValues {
  std::string rig;
  std::vector<double> values;
  std::vector<double> u95;  ///< of each value
};

/// A rig's value: the mean over its passes.
struct RigMean {
  std::string rig;
  std::size_t passes = 0;
  double mean = 0.0;
  double u95 = 0.0;
  std::string letters;  ///< rigs that share a letter cannot be told apart; empty with one pass
};

/// Two rigs, by their place in Spread::rigs.
struct RigPair {
  std::size_t a = 0;
  std::size_t b = 0;
  double difference = 0.0;  ///< of their means, a − b
  double p = 1.0;           ///< two-sided, adjusted for the number of pairs
  bool apart = false;
  /// Further passes of each that would settle a difference of this size, at least one; none where no number
  /// of passes up to a hundred would, or where they are apart already.
  std::optional<std::size_t> morePasses;
};

struct Spread {
  std::vector<RigMean> rigs;          ///< by falling mean
  std::vector<RigPair> pairs;         ///< of rigs with two passes and more
  std::vector<std::string> untested;  ///< rigs with one pass
};

/// Whether the passes that each pair would still need are wanted.
enum class FurtherPasses { NotAsked, Find };

/// Compares rigs by one reading.
///
/// Interval: Student's t over the passes, together with the smallest half-width of its single values (what
/// all passes share, such as the scale, can be no more than that); with one pass that pass's own half-width.
/// Tests: Welch's t between any two rigs (B. Welch, 1947), adjusted by Holm's step-down (S. Holm, 1979),
/// apart at 5 %. A rig's variance counts as no less than its values' own uncertainty says. Letters by
/// insertion and absorption (H.-P. Piepho, 2004). Passes needed: power of 80 % by the non-central t, with the
/// variances and the difference as they are, at a level shared over the pairs; it is what takes the time, and
/// is found only where it is asked for. Checked against R.
Spread compare(const std::vector<RigValues>& rigs, FurtherPasses further = FurtherPasses::NotAsked);

/// A letter for each group of which no two are apart, as a string for each of `count`: two share one unless
/// they are apart.
std::vector<std::string> lettersFor(std::size_t count,
                                    const std::vector<std::pair<std::size_t, std::size_t>>& apart);

double meanOf(const std::vector<double>& values);
/// The standard deviation within groups, over all of them that have two values and more.
struct PooledScatter {
  double sd = 0.0;
  double degrees = 0.0;  ///< of freedom
};
std::optional<PooledScatter> pooledScatter(const std::vector<std::vector<double>>& groups);

struct Welch {
  double t = 0.0;
  double degrees = 0.0;  ///< of freedom
  double p = 1.0;        ///< two-sided
};
/// From means, variances of single values, and their numbers (two and more).
Welch welch(double meanA, double varianceA, double nA, double meanB, double varianceB, double nB);
/// Holm's adjustment, in the order given.
std::vector<double> holm(const std::vector<double>& p);
/// Passes of each of two rigs for a power of 80 % at a level, two-sided; none above 1000.
std::optional<std::size_t> passesNeeded(double difference, double variance, double level = 0.05,
                                        std::size_t most = 1000);

}  // namespace fin
