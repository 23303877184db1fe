// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/colour_odds.h"

#include <algorithm>
#include <utility>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr int kBins = 14;  ///< of each figure
constexpr double kOfAll = 0.002;
constexpr double kOfBody = 0.05;
constexpr float kHardlyMet = 0.004F;  ///< share of the body's pixels in a bin, that is as good as none

/// The range that leaves out a share at either end.
std::pair<float, float> rangeOf(const std::vector<ColourOdds::Colour>& colours, std::size_t figure,
                                double share) {
  std::vector<float> values;
  for (const auto& c : colours) values.push_back(c[figure]);
  const float low = quantileOf(std::span(values), share);
  return {low, quantileOf(std::span(values), 1.0 - share)};
}

}  // namespace

void ColourOdds::setRange(const std::vector<Colour>& all, const std::vector<Colour>& body) {
  for (std::size_t k = 0; k < lowest_.size(); ++k) {
    auto [low, high] = rangeOf(all, k, kOfAll);
    if (!body.empty()) {
      const auto [bodyLow, bodyHigh] = rangeOf(body, k, kOfBody);
      low = std::min(low, bodyLow);
      high = std::max(high, bodyHigh);
    }
    lowest_[k] = low;
    binsPerUnit_[k] = static_cast<float>(kBins) / std::max(high - low, 1e-3F);
  }
}

std::size_t ColourOdds::binOf(const Colour& colour) const {
  int index = 0;
  for (std::size_t k = 0; k < colour.size(); ++k) {
    const int bin = std::clamp(static_cast<int>((colour[k] - lowest_[k]) * binsPerUnit_[k]), 0, kBins - 1);
    index = index * kBins + bin;
  }
  return static_cast<std::size_t>(index);
}

/// Shares of all, a bin's neighbours along each figure counting half as much.
std::vector<float> ColourOdds::histogram(const std::vector<Colour>& colours) const {
  std::vector<float> out(kBins * kBins * kBins, 0.0F);
  for (const Colour& c : colours) out[binOf(c)] += 1.0F / static_cast<float>(colours.size());
  for (const std::size_t stride : {std::size_t{1}, std::size_t{kBins}, std::size_t{kBins * kBins}}) {
    std::vector<float> smooth(out.size());
    for (std::size_t i = 0; i < out.size(); ++i) {
      const std::size_t at = i / stride % kBins;
      const float before = at > 0 ? out[i - stride] : out[i];
      const float after = at + 1 < kBins ? out[i + stride] : out[i];
      smooth[i] = 0.25F * before + 0.5F * out[i] + 0.25F * after;
    }
    out = std::move(smooth);
  }
  return out;
}

void ColourOdds::learn(const std::vector<Colour>& body, const std::vector<Colour>& rest) {
  if (body.empty() || rest.empty()) return;
  odds_ = histogram(body);
  const std::vector<float> elsewhere = histogram(rest);
  for (std::size_t i = 0; i < odds_.size(); ++i)
    odds_[i] = (odds_[i] - elsewhere[i]) / (odds_[i] + elsewhere[i] + kHardlyMet);
}

}  // namespace fin
