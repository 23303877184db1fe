// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/box.h"

#include <algorithm>
#include <boost/math/distributions/negative_binomial.hpp>
#include <cmath>
#include <numeric>
#include <tuple>

namespace fin {
namespace {

constexpr std::size_t kMostLures = 40;
constexpr std::size_t kMostPurposes = 20;
constexpr double kPointsAtMost = 10.0;
constexpr double kTooFew = 0.1;
constexpr std::size_t kMostSpares = 1000;
constexpr double kSame = 1e-12;

/// A rack as the search looks at it.
class BoxSearch {
 public:
  BoxSearch(const std::vector<BoxLure>& lures, const std::vector<double>& weights)
      : lures_(lures), weights_(weights) {
    all_ = std::accumulate(weights.begin(), weights.end(), 0.0);
    for (std::size_t p = 0; p < weights.size(); ++p) {
      double best = 0.0;
      for (const BoxLure& lure : lures) best = std::max(best, lure.points[p].value_or(0.0));
      best_.push_back(best);
    }
  }

  /// Weighted mean of what is lost against the rack's best, with these lures.
  [[nodiscard]] double lossOf(const std::vector<std::size_t>& box) const {
    double out = 0.0;
    for (std::size_t p = 0; p < weights_.size(); ++p) {
      double own = 0.0;
      for (const std::size_t l : box) own = std::max(own, lures_[l].points[p].value_or(0.0));
      out += weights_[p] * (best_[p] - own);
    }
    return out / all_;
  }
  [[nodiscard]] double priceOf(const std::vector<std::size_t>& box) const {
    double out = 0.0;
    for (const std::size_t l : box) out += lures_[l].price.value_or(0.0);
    return out;
  }
  [[nodiscard]] bool covers(std::size_t lure, std::size_t purpose, double loss) const {
    const auto points = lures_[lure].points[purpose];
    return points && *points >= best_[purpose] - loss - kSame;
  }
  [[nodiscard]] std::size_t purposes() const { return weights_.size(); }
  [[nodiscard]] std::size_t lures() const { return lures_.size(); }

 private:
  const std::vector<BoxLure>& lures_;
  const std::vector<double>& weights_;
  std::vector<double> best_;
  double all_ = 0.0;
};

/// Covers the purposes one by one, always the one that fewest lures cover.
class Cover {
 public:
  Cover(const BoxSearch& rack, double loss) : rack_(rack) {
    for (std::size_t p = 0; p < rack.purposes(); ++p) {
      std::vector<std::size_t>& by = by_.emplace_back();
      for (std::size_t l = 0; l < rack.lures(); ++l) {
        if (rack.covers(l, p, loss)) by.push_back(l);
      }
      if (by.empty()) uncovered_.push_back(p);
    }
  }

  Box best() {
    for (most_ = 0; most_ <= rack_.lures() && !any_; ++most_) branch({});
    std::sort(best_.begin(), best_.end());
    return {best_, uncovered_, rack_.lossOf(best_)};
  }

 private:
  [[nodiscard]] bool covered(std::size_t purpose, const std::vector<std::size_t>& box) const {
    return by_[purpose].empty() || std::any_of(box.begin(), box.end(), [&](std::size_t l) {
             return std::find(by_[purpose].begin(), by_[purpose].end(), l) != by_[purpose].end();
           });
  }

  void branch(std::vector<std::size_t> box) {
    std::size_t hardest = by_.size();
    for (std::size_t p = 0; p < by_.size(); ++p) {
      if (!covered(p, box) && (hardest == by_.size() || by_[p].size() < by_[hardest].size())) hardest = p;
    }
    if (hardest == by_.size()) return keep(box);
    if (box.size() == most_) return;
    for (const std::size_t l : by_[hardest]) {
      box.push_back(l);
      branch(box);
      box.pop_back();
    }
  }

  void keep(const std::vector<std::size_t>& box) {
    const auto rank = std::tuple(rack_.lossOf(box), rack_.priceOf(box));
    if (any_ && !(std::get<0>(rank) < std::get<0>(rank_) - kSame ||
                  (std::get<0>(rank) < std::get<0>(rank_) + kSame && std::get<1>(rank) < std::get<1>(rank_))))
      return;
    any_ = true;
    rank_ = rank;
    best_ = box;
  }

  const BoxSearch& rack_;
  std::vector<std::vector<std::size_t>> by_;  ///< purpose: lures that cover it
  std::vector<std::size_t> uncovered_;
  std::size_t most_ = 0;
  bool any_ = false;
  std::vector<std::size_t> best_;
  std::tuple<double, double> rank_{0.0, 0.0};
};

Result<void> check(const std::vector<BoxLure>& lures, const std::vector<double>& weights) {
  if (lures.size() > kMostLures || weights.size() > kMostPurposes)
    return failure(ErrorCode::BadRequest, "a box is chosen from up to 40 lures for up to 20 purposes");
  const bool fits = std::all_of(lures.begin(), lures.end(),
                                [&](const BoxLure& l) { return l.points.size() == weights.size(); });
  const bool above = std::all_of(weights.begin(), weights.end(), [](double w) { return w > 0.0; });
  if (!fits || !above || weights.empty())
    return failure(ErrorCode::BadRequest, "each lure needs points, and each purpose a weight above nought");
  return {};
}

/// Every box of so many slots, cut off where even all that is left could not do better.
class Slots {
 public:
  Slots(const BoxSearch& rack, std::size_t slots) : rack_(rack), slots_(std::min(slots, rack.lures())) {
    // What all lures from each one on would lose together.
    for (std::size_t l = 0; l <= rack.lures(); ++l) {
      std::vector<std::size_t>& rest = rest_.emplace_back(rack.lures() - l);
      std::iota(rest.begin(), rest.end(), l);
    }
  }
  Box best() {
    std::vector<std::size_t> box;
    branch(box, 0);
    return {best_, {}, rack_.lossOf(best_)};
  }

 private:
  void branch(std::vector<std::size_t>& box, std::size_t from) {
    const double loss = rack_.lossOf(box);
    const double price = rack_.priceOf(box);
    const bool better = loss < loss_ - kSame || (loss < loss_ + kSame && price < price_);
    if (!any_ || better) {
      any_ = true;
      loss_ = loss;
      price_ = price;
      best_ = box;
    }
    if (box.size() == slots_ || from == rack_.lures()) return;
    std::vector<std::size_t> with = box;
    with.insert(with.end(), rest_[from].begin(), rest_[from].end());
    if (rack_.lossOf(with) > loss_ + kSame) return;
    for (std::size_t l = from; l < rack_.lures(); ++l) {
      box.push_back(l);
      branch(box, l + 1);
      box.pop_back();
    }
  }

  const BoxSearch& rack_;
  std::size_t slots_;
  std::vector<std::vector<std::size_t>> rest_;
  bool any_ = false;
  double loss_ = kPointsAtMost;
  double price_ = 0.0;
  std::vector<std::size_t> best_;
};

}  // namespace

Result<Box> fewestLures(const std::vector<BoxLure>& lures, const std::vector<double>& weights, double loss) {
  if (auto ok = check(lures, weights); !ok) return tl::unexpected(ok.error());
  const BoxSearch rack(lures, weights);
  return Cover(rack, loss).best();
}

Result<Box> bestForSlots(const std::vector<BoxLure>& lures, const std::vector<double>& weights,
                         std::size_t slots) {
  if (auto ok = check(lures, weights); !ok) return tl::unexpected(ok.error());
  const BoxSearch rack(lures, weights);
  return Slots(rack, slots).best();
}

Result<std::optional<Purchase>> buyFirst(const std::vector<BoxLure>& lures,
                                         const std::vector<double>& weights) {
  if (auto ok = check(lures, weights); !ok) return tl::unexpected(ok.error());
  const BoxSearch rack(lures, weights);
  std::vector<std::size_t> owned;
  for (std::size_t l = 0; l < lures.size(); ++l) {
    if (lures[l].owned) owned.push_back(l);
  }
  const double now = rack.lossOf(owned);
  std::optional<Purchase> best;
  for (std::size_t l = 0; l < lures.size(); ++l) {
    if (lures[l].owned || lures[l].price.value_or(0.0) <= 0.0) continue;
    std::vector<std::size_t> with = owned;
    with.push_back(l);
    const double saved = now - rack.lossOf(with);
    const Purchase one{l, saved, saved / *lures[l].price};
    if (saved > kSame && (!best || one.savedPerPrice > best->savedPerPrice)) best = one;
  }
  return best;
}

Result<Spares> sparesFor(std::size_t lost, double hours, double hoursAhead) {
  if (!(hours > 0.0) || !(hoursAhead >= 0.0))
    return failure(ErrorCode::BadRequest, "losses are counted over hours that were fished");
  const boost::math::negative_binomial losses(0.5 + static_cast<double>(lost), hours / (hours + hoursAhead));
  Spares out;
  for (out.take = 0; out.take < kMostSpares; ++out.take) {
    out.tooFew = boost::math::cdf(boost::math::complement(losses, static_cast<double>(out.take)));
    if (out.tooFew <= kTooFew) break;
  }
  return out;
}

}  // namespace fin
