// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/ranking.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>
#include <random>

#include "core/comparison/apart/drawn_in.h"
#include "core/signals/count_intervals.h"

namespace fin {
namespace {

constexpr unsigned kPurposeDraws = 1000;
constexpr std::size_t kFewestRigs = 2;  ///< that something can be compared by
constexpr double kHeavy = 1.0 + 1e-9;   ///< of the mean weight: more than that has to be read
constexpr double kTailOfPlaces = 0.025;
constexpr double kWeightsFirm = 12.0;
constexpr double kMostPasses = 50.0;  ///< %, of a class that is demanded

/// What is not read may be anything.
bool mayLack(const RankOptions& options) {
  return options.halfIsEnough && options.scoring == Scoring::Points;
}

/// A wish that counts, and the rigs' values of it in the order of Contest::entries.
struct Column {
  std::size_t wish = 0;
  std::vector<std::optional<ScoredValue>> values;
  std::vector<std::optional<ScoredValue>> drawnIn;  ///< what draws are about
  PointsCurve curve;
};

/// What is left of a table once those that cannot be ranked are out.
struct Contest {
  const ScoreTable& table;
  RankOptions options;
  std::vector<std::size_t> entries;
  std::vector<Column> columns;
};

using Values = std::vector<std::vector<std::optional<double>>>;  // [column][rig]

double goodness(const Wish& wish, double value) {
  switch (wish.direction) {
    case Direction::More:
      return value;
    case Direction::Less:
      return -value;
    case Direction::Target:
      return -std::abs(value - wish.target);
  }
  return 0.0;
}

/// By column: places (least is best) or points; what a rig lacks stays out.
Values cellsOf(const Contest& contest, const Values& values) {
  Values out;
  for (std::size_t c = 0; c < contest.columns.size(); ++c) {
    const Column& column = contest.columns[c];
    const Wish& wish = contest.table.wishes[column.wish];
    if (contest.options.scoring == Scoring::Points) {
      auto& row = out.emplace_back();
      for (const auto& v : values[c])
        row.push_back(v ? std::optional(pointsBy(column.curve, wish, *v)) : std::nullopt);
      continue;
    }
    std::vector<double> good;
    for (const auto& v : values[c]) good.push_back(goodness(wish, *v));
    const std::vector<double> places = placesOf(good);
    out.emplace_back(places.begin(), places.end());
  }
  return out;
}

std::vector<double> pricePlaces(const Contest& contest) {
  std::vector<double> cheap;
  for (const std::size_t e : contest.entries) cheap.push_back(-*contest.table.entries[e].price);
  return placesOf(cheap);
}

/// `lacking`: the points of what a rig lacks.
std::vector<double> totalsOf(const Contest& contest, const Values& cells, const std::vector<double>& weights,
                             double lacking = 0.0) {
  const bool points = contest.options.scoring == Scoring::Points;
  const double whole = std::accumulate(weights.begin(), weights.end(), 0.0);
  std::vector<double> totals;
  for (std::size_t r = 0; r < contest.entries.size(); ++r) {
    double sum = 0.0;
    for (std::size_t c = 0; c < cells.size(); ++c) sum += weights[c] * cells[c][r].value_or(lacking);
    totals.push_back(points ? sum / whole : sum);
  }
  if (!contest.options.againstPrice) return totals;
  if (points) {
    for (std::size_t r = 0; r < totals.size(); ++r)
      totals[r] /= *contest.table.entries[contest.entries[r]].price;
    return totals;
  }
  std::vector<double> least;
  for (const double t : totals) least.push_back(-t);
  totals = placesOf(least);
  const std::vector<double> cheap = pricePlaces(contest);
  for (std::size_t r = 0; r < totals.size(); ++r) totals[r] += cheap[r];
  return totals;
}

/// The greater the better, whatever the scoring.
std::vector<double> meritOf(const Contest& contest, std::vector<double> totals) {
  if (contest.options.scoring == Scoring::Places) {
    for (double& t : totals) t = -t;
  }
  return totals;
}

void shareFirst(const std::vector<double>& merit, std::vector<double>& chances) {
  const double best = *std::max_element(merit.begin(), merit.end());
  const auto isFirst = [&](double m) { return m >= best - 1e-12 * std::max(1.0, std::abs(best)); };
  const auto firsts = static_cast<double>(std::count_if(merit.begin(), merit.end(), isFirst));
  for (std::size_t r = 0; r < merit.size(); ++r) {
    if (isFirst(merit[r])) chances[r] += 1.0 / firsts;
  }
}

Values meansOf(const Contest& contest) {
  Values out;
  for (const Column& column : contest.columns) {
    auto& row = out.emplace_back();
    for (const auto& v : column.values) row.push_back(v ? std::optional(v->value) : std::nullopt);
  }
  return out;
}

std::vector<double> weightsOf(const Contest& contest) {
  std::vector<double> out;
  for (const Column& column : contest.columns) out.push_back(contest.table.wishes[column.wish].weight);
  return out;
}

/// Without what all share through a known length.
double ownVariance(const ScoredValue& v) {
  return std::max(0.0, v.u95 * v.u95 - v.lengthU95 * v.lengthU95) / (kNormal95 * kNormal95);
}

std::vector<std::optional<ScoredValue>> drawnInOf(const std::vector<std::optional<ScoredValue>>& values) {
  std::vector<DrawnMean> means;
  for (const auto& v : values) {
    if (v && v->ofClass) return values;
    if (v) means.push_back({v->value, ownVariance(*v)});
  }
  means = drawnIn(std::move(means));
  std::vector<std::optional<ScoredValue>> out = values;
  auto mean = means.begin();
  for (auto& v : out) {
    if (!v) continue;
    v->value = mean->mean;
    v->u95 = std::hypot(kNormal95 * std::sqrt(mean->variance), v->lengthU95);
    ++mean;
  }
  return out;
}

/// Whether a share of passes, %, is let in where the class is demanded.
bool letIn(const Wish& wish, double share) {
  return wish.direction == Direction::Less ? share < kMostPasses : share > kMostPasses;
}

class Draws {
 public:
  explicit Draws(unsigned seed) : random_(seed) {}

  Values values(const Contest& contest) {
    Values out;
    const double length = normal_(random_);
    for (const Column& column : contest.columns) {
      auto& row = out.emplace_back();
      for (const auto& v : column.drawnIn) row.push_back(v ? std::optional(drawn(*v, length)) : std::nullopt);
    }
    return out;
  }
  /// About theirs, by Dirichlet's distribution: gamma variates over their sum.
  std::vector<double> weights(std::vector<double> weights) {
    const double whole = std::accumulate(weights.begin(), weights.end(), 0.0);
    for (double& w : weights) w = gamma(kWeightsFirm * w / whole);
    return weights;
  }
  /// Who is not let in by a demanded class comes last.
  void keepOut(const Contest& contest, std::vector<double>& merit) {
    for (std::size_t w = 0; w < contest.table.wishes.size(); ++w) {
      const Wish& wish = contest.table.wishes[w];
      for (std::size_t r = 0; wish.demanded && r < merit.size(); ++r) {
        if (!letIn(wish, drawn(*contest.table.cells[w][contest.entries[r]], 0.0)))
          merit[r] = std::numeric_limits<double>::lowest();
      }
    }
  }
  /// What is not known may be anything.
  void fillIn(Values& points) {
    for (auto& row : points) {
      for (auto& p : row) {
        if (!p) p = 0.5 * kMostPoints * (1.0 + even_(random_));
      }
    }
  }

 private:
  double gamma(double shape) { return std::gamma_distribution<double>(shape)(random_); }
  double drawn(const ScoredValue& v, double length) {
    if (v.ofClass) {
      const double so = gamma(static_cast<double>(*v.ofClass) + 0.5);
      const double other = gamma(static_cast<double>(v.passes - *v.ofClass) + 0.5);
      return 100.0 * so / (so + other);
    }
    return v.value + std::sqrt(ownVariance(v)) * normal_(random_) + v.lengthU95 / kNormal95 * length;
  }

  std::mt19937_64 random_;
  std::normal_distribution<double> normal_;
  std::uniform_real_distribution<double> even_{-1.0, 1.0};
};

/// From all places that a rig had in the draws.
void tellPlaces(std::vector<double> places, Placing& placing) {
  if (places.empty()) return;
  placing.meanPlace = std::accumulate(places.begin(), places.end(), 0.0) / static_cast<double>(places.size());
  std::sort(places.begin(), places.end());
  const auto last = static_cast<double>(places.size() - 1);
  placing.placeFrom = places[static_cast<std::size_t>(std::lround(kTailOfPlaces * last))];
  placing.placeTo = places[static_cast<std::size_t>(std::lround((1.0 - kTailOfPlaces) * last))];
}

void findChances(Contest& contest, const std::stop_token& stop, std::vector<Placing>& placings) {
  for (Column& column : contest.columns) column.drawnIn = drawnInOf(column.values);
  const Values means = meansOf(contest);
  const std::vector<double> weights = weightsOf(contest);
  Draws draws(contest.options.seed);
  std::vector<std::vector<double>> places(contest.entries.size());
  const auto chances = [&](bool drawValues, bool drawWeights) {
    std::vector<double> out(contest.entries.size(), 0.0);
    for (unsigned k = 0; k < contest.options.draws && !stop.stop_requested(); ++k) {
      Values cells = cellsOf(contest, drawValues ? draws.values(contest) : means);
      if (drawValues) draws.fillIn(cells);
      const auto totals = totalsOf(contest, cells, drawWeights ? draws.weights(weights) : weights);
      std::vector<double> merit = meritOf(contest, totals);
      if (drawValues) draws.keepOut(contest, merit);
      shareFirst(merit, out);
      if (!drawValues || drawWeights) continue;
      const std::vector<double> placed = placesOf(merit);
      for (std::size_t r = 0; r < placed.size(); ++r) places[r].push_back(placed[r]);
    }
    for (double& chance : out) chance /= contest.options.draws;
    return out;
  };
  const std::vector<double> measuring = chances(true, false);
  const std::vector<double> weighing = chances(false, true);
  const std::vector<double> both = chances(true, true);
  for (std::size_t r = 0; r < placings.size(); ++r) {
    placings[r].first = {measuring[r], weighing[r], both[r]};
    tellPlaces(std::move(places[r]), placings[r]);
  }
}

bool differ(const std::vector<std::optional<ScoredValue>>& values) {
  std::optional<double> first;
  for (const auto& v : values) {
    if (v && first && v->value != *first) return true;
    if (v) first = v->value;
  }
  return false;
}

/// The currency of most graded entries with a price.
std::string currencyOf(const ScoreTable& table) {
  std::map<std::string, int> counts;
  for (const Entry& entry : table.entries) {
    if (entry.graded && entry.price) ++counts[entry.currency];
  }
  const auto most = std::max_element(counts.begin(), counts.end(),
                                     [](const auto& a, const auto& b) { return a.second < b.second; });
  return most == counts.end() ? std::string() : most->first;
}

/// Of these wishes; an entry that has enough of them lacks none.
std::vector<std::size_t> lacksOf(const ScoreTable& table, std::size_t e,
                                 const std::vector<std::size_t>& wishes, const RankOptions& options) {
  double known = 0.0;
  double whole = 0.0;
  for (const std::size_t w : wishes) whole += table.wishes[w].weight;
  const double mean = whole / static_cast<double>(std::max<std::size_t>(wishes.size(), 1));
  std::vector<std::size_t> lacks, needed;
  for (const std::size_t w : wishes) {
    const Wish& wish = table.wishes[w];
    if (table.cells[w][e]) {
      known += wish.weight;
    } else {
      lacks.push_back(w);
      if (wish.weight > kHeavy * mean) needed.push_back(w);
    }
  }
  if (!mayLack(options) || !(known >= 0.5 * whole)) return lacks;
  return needed;
}

/// Why an entry's price is of no use; empty where none is needed or it is.
std::string whyNoPrice(const Entry& entry, const RankOptions& options, const std::string& currency) {
  if (!options.againstPrice) return {};
  if (!entry.price || !(*entry.price > 0.0)) return "no price is noted";
  if (entry.currency == currency) return {};
  return "its price is in " + (entry.currency.empty() ? "no named currency" : entry.currency) +
         ", those of the others in " + currency;
}

/// Notes what a demanded class keeps an entry out for, and whether more passes could let it in.
void passGates(const ScoreTable& table, Ranking::Left& left, std::vector<std::size_t>& couldPass) {
  for (std::size_t w = 0; w < table.wishes.size(); ++w) {
    const Wish& wish = table.wishes[w];
    if (!wish.demanded) continue;
    const auto& cell = table.cells[w][left.entry];
    if (!cell || !cell->ofClass) {
      if (std::find(left.lacks.begin(), left.lacks.end(), w) == left.lacks.end()) left.lacks.push_back(w);
      continue;
    }
    if (letIn(wish, cell->value)) continue;
    left.why = std::to_string(*cell->ofClass) + " of " + std::to_string(cell->passes) + " passes showed \"" +
               wish.className + "\", and " +
               (wish.direction == Direction::Less ? "fewer than half" : "more than half") + " is demanded";
    const CountInterval share = jeffreys(*cell->ofClass, cell->passes);
    if (letIn(wish, 100.0 * (wish.direction == Direction::Less ? share.from : share.to)))
      couldPass.push_back(left.entry);
  }
}

/// The wishes by which the entries differ, with their values; the others are non-discriminating.
void fillColumns(const std::vector<std::size_t>& wishes, Contest& contest, Ranking& out) {
  for (const std::size_t w : wishes) {
    Column column{.wish = w};
    for (const std::size_t e : contest.entries) column.values.push_back(contest.table.cells[w][e]);
    const std::vector<double> read = gradedValues(contest.table, w);
    if (mayLack(contest.options) && read.size() < kFewestRigs) {
      for (auto& v : column.values) v.reset();  // of one alone nobody knows what it is worth
      contest.columns.push_back(std::move(column));
      out.unread.push_back(w);
      continue;
    }
    const auto curve = curveFor(contest.table.wishes[w], read);
    if (curve && (contest.table.wishes[w].curve || differ(column.values))) {
      column.curve = *curve;
      contest.columns.push_back(std::move(column));
    } else {
      out.nonDiscriminating.push_back(w);
    }
  }
}

/// Whoever has nothing of what the others differ in has no points to be ranked by.
void dropWhoHasNothing(Contest& contest, Ranking& out) {
  for (std::size_t r = contest.entries.size(); r-- > 0;) {
    const bool any = std::any_of(contest.columns.begin(), contest.columns.end(),
                                 [r](const Column& c) { return c.values[r].has_value(); });
    if (any || contest.columns.empty()) continue;  // or nothing is told of anybody
    Ranking::Left left{contest.entries[r], {}, {}};
    for (Column& column : contest.columns) {
      left.lacks.push_back(column.wish);
      column.values.erase(column.values.begin() + static_cast<std::ptrdiff_t>(r));
    }
    contest.entries.erase(contest.entries.begin() + static_cast<std::ptrdiff_t>(r));
    out.left.push_back(std::move(left));
  }
}

/// Takes in the wishes that count, and the entries that can be ranked by them.
Contest gather(const ScoreTable& table, const RankOptions& options, Ranking& out) {
  Contest contest{table, options, {}, {}};
  std::vector<std::size_t> wishes;
  for (std::size_t w = 0; w < table.wishes.size(); ++w) {
    if (!(table.wishes[w].weight > 0.0)) continue;
    if (mayLack(options) || gradedValues(table, w).size() >= kFewestRigs) {
      wishes.push_back(w);
    } else {
      out.nonDiscriminating.push_back(w);
    }
  }
  const std::string currency = currencyOf(table);
  for (std::size_t e = 0; e < table.entries.size(); ++e) {
    if (!table.entries[e].graded) continue;
    Ranking::Left left{e, lacksOf(table, e, wishes, options),
                       whyNoPrice(table.entries[e], options, currency)};
    passGates(table, left, out.couldPass);
    if (left.lacks.empty() && left.why.empty()) {
      contest.entries.push_back(e);
    } else {
      out.left.push_back(std::move(left));
    }
  }
  fillColumns(wishes, contest, out);
  dropWhoHasNothing(contest, out);
  return contest;
}

std::string whyNothing(const Contest& contest, const ScoreTable& table) {
  const bool anyWeight =
      std::any_of(table.wishes.begin(), table.wishes.end(), [](const Wish& w) { return w.weight > 0.0; });
  if (table.wishes.empty()) return "there is no property to score by yet";
  if (!anyWeight) return "every property has weight 0";
  if (contest.entries.empty()) return "no graded rig has all that is scored by";
  if (contest.entries.size() == 1) return "only one graded rig has all that is scored by";
  if (contest.columns.empty()) return "the rigs do not differ in anything that is scored by";
  return {};
}

}  // namespace

std::vector<double> gradedValues(const ScoreTable& table, std::size_t wish) {
  std::vector<double> out;
  for (std::size_t e = 0; e < table.entries.size(); ++e) {
    if (table.entries[e].graded && table.cells[wish][e]) out.push_back(table.cells[wish][e]->value);
  }
  return out;
}

RankOptions purposeOptions() {
  return {.scoring = Scoring::Points, .halfIsEnough = true, .draws = kPurposeDraws};
}

Ranking rank(const ScoreTable& table, const RankOptions& options, const std::stop_token& stop) {
  Ranking out;
  Contest contest = gather(table, options, out);
  out.whyNone = whyNothing(contest, table);
  if (!out.whyNone.empty()) return out;
  const Values cells = cellsOf(contest, meansOf(contest));
  const std::vector<double> totals = totalsOf(contest, cells, weightsOf(contest));
  const std::vector<double> most = totalsOf(contest, cells, weightsOf(contest), kMostPoints);
  const std::vector<double> places = placesOf(meritOf(contest, totals));
  for (std::size_t r = 0; r < contest.entries.size(); ++r) {
    Placing placing{.entry = contest.entries[r], .place = places[r], .total = totals[r], .most = most[r]};
    placing.cells.resize(table.wishes.size());
    for (std::size_t c = 0; c < contest.columns.size(); ++c)
      placing.cells[contest.columns[c].wish] = cells[c][r];
    out.placings.push_back(std::move(placing));
  }
  findChances(contest, stop, out.placings);
  std::stable_sort(out.placings.begin(), out.placings.end(),
                   [](const Placing& a, const Placing& b) { return a.place < b.place; });
  for (std::size_t k = 1; k < out.placings.size(); ++k) {
    if (mayLack(options) && out.placings[k].most > out.placings.front().total)
      out.couldPass.push_back(out.placings[k].entry);
  }
  return out;
}

}  // namespace fin
