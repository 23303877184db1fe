// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/rankings.h"

#include <algorithm>

namespace fin::app {
namespace {

constexpr std::size_t kMostKnown = 64;  ///< more than a day has schools and purposes

}  // namespace

const Ranking* Rankings::of(const ScoreTable& table, const RankOptions& options) {
  const auto found = std::find_if(known_.begin(), known_.end(), [&](const Known& known) {
    return known.options == options && known.table == table;
  });
  Known asked = found != known_.end() ? std::move(*found) : Known{table, options, std::nullopt};
  if (found != known_.end()) known_.erase(found);
  known_.push_back(std::move(asked));
  if (known_.size() > kMostKnown) known_.pop_front();
  if (known_.back().ranking) return &*known_.back().ranking;
  if (table.entries.size() < 2 || table.wishes.empty()) {  // nothing is drawn for them
    known_.back().ranking = rank(table, options);
    return &*known_.back().ranking;
  }
  if (!working_.running()) workNext();
  return nullptr;
}

void Rankings::workNext() {
  const auto open =
      std::find_if(known_.begin(), known_.end(), [](const Known& known) { return !known.ranking; });
  if (open == known_.end()) return emit ready();
  working_.start([table = open->table, options = open->options](
                     const JobControl& job) -> Result<Ranking> { return rank(table, options, job.stop); },
                 [this, table = open->table, options = open->options](Result<Ranking> ranking) {
                   for (Known& known : known_) {
                     if (known.options == options && known.table == table)
                       known.ranking =
                           ranking ? std::move(*ranking) : Ranking{.whyNone = ranking.error().message};
                   }
                   workNext();
                 });
}

}  // namespace fin::app
