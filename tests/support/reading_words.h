// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <ostream>
#include <string>

#include "core/readings/reading.h"

namespace fin {

inline std::ostream& operator<<(std::ostream& out, ReadingId id) {
  return out << toString(id);
}

namespace test {

/// Empty where it was not refused.
inline std::string whyRefused(const ReadingSet& set, ReadingId id) {
  const auto found =
      std::find_if(set.refused.begin(), set.refused.end(), [id](const Refusal& r) { return r.id == id; });
  return found == set.refused.end() ? std::string() : found->why;
}

}  // namespace test
}  // namespace fin
