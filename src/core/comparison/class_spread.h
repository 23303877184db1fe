// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"

namespace fin {

/// How many passes of a rig were read as one class: "glide", 4.
struct ClassCount {
  std::string name;
  std::size_t passes = 0;
};

/// One reading in words of one rig, over its passes.
struct RigClasses {
  std::string rig;
  std::vector<ClassCount> classes;  ///< commonest first, of equals by name
  std::size_t passes = 0;           ///< that were read; those refused stand apart
  std::size_t refused = 0;
  double commonestFrom = 0.0;  ///< 95 % interval of the commonest class's share
  double commonestTo = 1.0;
  std::string letters;  ///< rigs that share a letter cannot be told apart

  [[nodiscard]] std::size_t passesOf(const std::string& name) const;
};

/// Two rigs, by their place in ClassSpread::rigs.
struct ClassPair {
  std::size_t a = 0;
  std::size_t b = 0;
  double p = 1.0;  ///< adjusted for the number of pairs
  bool apart = false;
  /// Were every pass of one of one class and every pass of the other of another, it would not tell them
  /// apart either.
  bool tooFew = false;
};

struct ClassSpread {
  std::vector<std::string> classes;  ///< all that were read, commonest first
  std::vector<RigClasses> rigs;      ///< in the order in which they were read
  std::vector<ClassPair> pairs;      ///< of rigs with a pass that was read
  double p = 1.0;                    ///< that all rigs are alike
  /// Passes of each rig from which on rigs could be told apart, with so many pairs.
  std::size_t passesThatCouldTell = 0;
};

/// Compares rigs by a reading in words. Several clips of one planned pass count once. Interval of the
/// commonest class: H. Jeffreys, 1946. Rigs: the exact test of G. Freeman & J. Halton, 1951, all
/// together and in pairs, the pairs adjusted by Holm's step-down; apart at 5 %. Pure; on any thread.
ClassSpread compareClasses(const std::vector<ComparedPass>& passes, ReadingId reading);

/// p of a table of counts, a row for each rig, a column for each class: the chance, with its margins held, of
/// a table that is no more likely than this one. Exact, by rows over what the columns have left.
double freemanHalton(const std::vector<std::vector<std::size_t>>& table);

}  // namespace fin
