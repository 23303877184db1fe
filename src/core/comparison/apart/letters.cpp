// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/apart/letters.h"

#include <algorithm>
#include <set>

namespace fin {
namespace {

/// Groups of which each is told apart from no member, by insertion and absorption.
std::vector<std::set<std::size_t>> groupsOf(std::size_t count,
                                            const std::vector<std::pair<std::size_t, std::size_t>>& apart) {
  std::set<std::size_t> all;
  for (std::size_t i = 0; i < count; ++i) all.insert(i);
  std::vector<std::set<std::size_t>> groups{all};
  for (const auto& [a, b] : apart) {
    std::vector<std::set<std::size_t>> next;
    for (const auto& group : groups) {
      if (!group.contains(a) || !group.contains(b)) {
        next.push_back(group);
        continue;
      }
      for (const std::size_t out : {a, b}) {
        next.push_back(group);
        next.back().erase(out);
      }
    }
    groups.clear();
    for (std::size_t i = 0; i < next.size(); ++i) {
      const bool absorbed = [&] {
        for (std::size_t j = 0; j < next.size(); ++j) {
          const bool within = std::includes(next[j].begin(), next[j].end(), next[i].begin(), next[i].end());
          if (i != j && within && (next[i] != next[j] || j < i)) return true;
        }
        return false;
      }();
      if (!absorbed) groups.push_back(next[i]);
    }
  }
  std::sort(groups.begin(), groups.end());
  return groups;
}

}  // namespace

std::vector<std::string> lettersFor(std::size_t count,
                                    const std::vector<std::pair<std::size_t, std::size_t>>& apart) {
  std::vector<std::string> out(count);
  char letter = 'a';
  for (const auto& group : groupsOf(count, apart)) {
    for (const std::size_t i : group) out[i] += letter;
    ++letter;
  }
  return out;
}

}  // namespace fin
