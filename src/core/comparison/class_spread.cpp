// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/class_spread.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <numeric>
#include <set>

#include "core/comparison/apart/letters.h"
#include "core/comparison/spread.h"
#include "core/signals/count_intervals.h"

namespace fin {
namespace {

constexpr double kLevel = 0.05;
constexpr std::size_t kMostPasses = 40;

using Counts = std::vector<std::size_t>;
/// Log of how likely a row's way of filling the columns is → chance of all ways that are as likely.
using Likelihoods = std::map<double, double>;

double logFactorial(std::size_t n) {
  return std::lgamma(static_cast<double>(n) + 1.0);
}

/// Ways that are as likely come from different sums; they count as one.
double rounded(double logChance) {
  return std::round(logChance * 1e9) * 1e-9;
}

/// Every way of laying `total` into the columns, none above what it has left.
void eachFilling(const Counts& left, std::size_t total, Counts& filling,
                 const std::function<void(const Counts&)>& take) {
  const std::size_t column = filling.size();
  if (column + 1 == left.size()) {
    if (total > left[column]) return;
    filling.push_back(total);
    take(filling);
    filling.pop_back();
    return;
  }
  for (std::size_t n = 0; n <= std::min(total, left[column]); ++n) {
    filling.push_back(n);
    eachFilling(left, total - n, filling, take);
    filling.pop_back();
  }
}

/// Σ log n! of the cells, of every table with these margins: by rows, over what the columns have left.
Likelihoods likelihoodsWith(const Counts& rows, const Counts& columns) {
  std::map<Counts, Likelihoods> open{{columns, {{0.0, 1.0}}}};
  for (const std::size_t row : rows) {
    std::map<Counts, Likelihoods> next;
    for (const auto& [left, ways] : open) {
      Counts filling;
      eachFilling(left, row, filling, [&](const Counts& filled) {
        Counts rest = left;
        double logs = 0.0;
        for (std::size_t c = 0; c < filled.size(); ++c) {
          rest[c] -= filled[c];
          logs += logFactorial(filled[c]);
        }
        Likelihoods& into = next[rest];
        for (const auto& [before, chance] : ways) into[rounded(before - logs)] += chance * std::exp(-logs);
      });
    }
    open = std::move(next);
  }
  return open.empty() ? Likelihoods{} : open.begin()->second;
}

/// The class that a pass was read as.
const std::string* classIn(const ComparedPass& pass, ReadingId reading) {
  const Reading* found = pass.readings.find(reading);
  return found == nullptr ? nullptr : std::get_if<std::string>(&found->value);
}

void count(const std::string& name, std::vector<ClassCount>& classes) {
  const auto found =
      std::find_if(classes.begin(), classes.end(), [&](const ClassCount& c) { return c.name == name; });
  (found == classes.end() ? classes.emplace_back(ClassCount{name, 0}) : *found).passes += 1;
}

void putCommonestFirst(std::vector<ClassCount>& classes) {
  std::sort(classes.begin(), classes.end(), [](const ClassCount& a, const ClassCount& b) {
    return a.passes != b.passes ? a.passes > b.passes : a.name < b.name;
  });
}

std::vector<RigClasses> countedByRig(const std::vector<ComparedPass>& passes, ReadingId reading) {
  std::vector<RigClasses> out;
  std::set<PlannedPassId> known;
  for (const ComparedPass& pass : passes) {
    const std::string* name = classIn(pass, reading);
    const bool refused = std::any_of(pass.readings.refused.begin(), pass.readings.refused.end(),
                                     [&](const Refusal& r) { return r.id == reading; });
    if ((name == nullptr && !refused) || (pass.planned && known.contains(*pass.planned))) continue;
    if (pass.planned && name != nullptr) known.insert(*pass.planned);
    auto rig = std::find_if(out.begin(), out.end(), [&](const RigClasses& r) { return r.rig == pass.rig; });
    if (rig == out.end()) rig = out.insert(out.end(), RigClasses{.rig = pass.rig});
    if (name == nullptr) {
      ++rig->refused;
    } else {
      ++rig->passes;
      count(*name, rig->classes);
    }
  }
  for (RigClasses& rig : out) {
    putCommonestFirst(rig.classes);
    if (rig.classes.empty()) continue;
    const CountInterval share = jeffreys(rig.classes.front().passes, rig.passes);
    rig.commonestFrom = share.from;
    rig.commonestTo = share.to;
  }
  return out;
}

std::vector<std::vector<std::size_t>> tableOf(const std::vector<std::string>& classes,
                                              std::initializer_list<const RigClasses*> rigs) {
  std::vector<std::vector<std::size_t>> out;
  for (const RigClasses* rig : rigs) {
    auto& row = out.emplace_back();
    for (const std::string& name : classes) row.push_back(rig->passesOf(name));
  }
  return out;
}

double leastPossible(std::size_t a, std::size_t b) {
  return freemanHalton({{a, 0}, {0, b}});
}

}  // namespace

std::size_t RigClasses::passesOf(const std::string& name) const {
  const auto found =
      std::find_if(classes.begin(), classes.end(), [&](const ClassCount& c) { return c.name == name; });
  return found == classes.end() ? 0 : found->passes;
}

double freemanHalton(const std::vector<std::vector<std::size_t>>& table) {
  if (table.empty() || table.front().empty()) return 1.0;
  Counts rows, columns;
  columns.resize(table.front().size());
  double observed = 0.0;
  for (const auto& row : table) {
    rows.push_back(std::accumulate(row.begin(), row.end(), std::size_t{0}));
    for (std::size_t c = 0; c < row.size(); ++c) {
      columns[c] += row[c];
      observed -= logFactorial(row[c]);
    }
  }
  double all = 0.0;
  double noLikelier = 0.0;
  for (const auto& [logChance, chance] : likelihoodsWith(rows, columns)) {
    all += chance;
    if (logChance <= observed + 1e-6) noLikelier += chance;
  }
  return noLikelier / all;
}

ClassSpread compareClasses(const std::vector<ComparedPass>& passes, ReadingId reading) {
  ClassSpread out;
  out.rigs = countedByRig(passes, reading);
  std::vector<ClassCount> all;
  std::vector<std::size_t> read;  // rigs with a pass that was read
  std::vector<std::vector<std::size_t>> whole;
  for (std::size_t i = 0; i < out.rigs.size(); ++i) {
    if (out.rigs[i].passes > 0) read.push_back(i);
    for (const ClassCount& one : out.rigs[i].classes) {
      for (std::size_t n = 0; n < one.passes; ++n) count(one.name, all);
    }
  }
  putCommonestFirst(all);
  for (const ClassCount& one : all) out.classes.push_back(one.name);
  std::vector<double> p;
  for (std::size_t i = 0; i < read.size(); ++i) {
    const RigClasses& a = out.rigs[read[i]];
    whole.push_back(tableOf(out.classes, {&a}).front());
    for (std::size_t j = i + 1; j < read.size(); ++j) {
      const RigClasses& b = out.rigs[read[j]];
      p.push_back(freemanHalton(tableOf(out.classes, {&a, &b})));
      out.pairs.push_back({.a = read[i], .b = read[j]});
    }
  }
  out.p = freemanHalton(whole);
  const std::vector<double> adjusted = holm(p);
  const auto pairs = static_cast<double>(std::max<std::size_t>(out.pairs.size(), 1));
  std::vector<std::pair<std::size_t, std::size_t>> apart;
  for (std::size_t k = 0; k < out.pairs.size(); ++k) {
    ClassPair& pair = out.pairs[k];
    pair.p = adjusted[k];
    pair.apart = pair.p < kLevel;
    pair.tooFew = leastPossible(out.rigs[pair.a].passes, out.rigs[pair.b].passes) * pairs >= kLevel;
    if (pair.apart) apart.emplace_back(pair.a, pair.b);
  }
  const std::vector<std::string> letters = lettersFor(out.rigs.size(), apart);
  for (const std::size_t i : read) out.rigs[i].letters = letters[i];
  out.passesThatCouldTell = 2;
  while (out.passesThatCouldTell < kMostPasses &&
         leastPossible(out.passesThatCouldTell, out.passesThatCouldTell) * pairs >= kLevel)
    ++out.passesThatCouldTell;
  return out;
}

}  // namespace fin
