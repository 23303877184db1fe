// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/heads.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>

#include "core/comparison/pooled_steps.h"
#include "core/comparison/speed_ladder.h"

namespace fin {
namespace {

constexpr double kDragDiffers = 0.05;  ///< u95
constexpr double kAttitudes_deg = 10.0;
constexpr double kGlides = 0.15;
constexpr double kSquaresDiffer = 1.3;
constexpr double kOfLargestKick = 0.2;
constexpr double kOfSlowestKick = 3.0;

/// The lightest and the heaviest head, and whether all fall alike.
struct TwoHeads {
  HeadFall light;
  HeadFall heavy;

  [[nodiscard]] double lightSquare() const { return light.rate_mm_s * light.rate_mm_s; }
  [[nodiscard]] double heavySquare() const { return heavy.rate_mm_s * heavy.rate_mm_s; }
  [[nodiscard]] double heads_g() const { return heavy.head_g - light.head_g; }
  [[nodiscard]] double slope() const { return (heavySquare() - lightSquare()) / heads_g(); }
  [[nodiscard]] double body_g() const { return lightSquare() / slope() - light.head_g; }
};

/// Relative u95 of a squared rate; of the drag too.
double squareU95(const HeadFall& fall) {
  return 2.0 * fall.rateU95_mm_s / fall.rate_mm_s;
}

Result<void> checkAlike(const HeadFall& a, const HeadFall& b) {
  const std::string both = fmt::format("{} and {}", a.name, b.name);
  if (a.mode != b.mode)
    return failure(ErrorCode::Unsupported,
                   fmt::format("{} fall in two ways ({}, {}): film heads that are nearer to each other", both,
                               a.mode, b.mode));
  if (a.attitude_deg && b.attitude_deg && std::abs(*a.attitude_deg - *b.attitude_deg) > kAttitudes_deg)
    return failure(
        ErrorCode::Unsupported,
        fmt::format("{} hang by more than 10° apart: film heads that are nearer to each other", both));
  if (a.glideRatio && b.glideRatio && std::abs(*a.glideRatio - *b.glideRatio) > kGlides)
    return failure(ErrorCode::Unsupported,
                   both + " glide differently: film heads that are nearer to each other");
  return {};
}

/// Heads in between have to lie on the line through the two, within what they are unsure by.
Result<void> checkStraight(const TwoHeads& two, const std::vector<HeadFall>& falls) {
  for (const HeadFall& fall : falls) {
    const double share = (fall.head_g - two.light.head_g) / two.heads_g();
    const double expected = two.lightSquare() + share * (two.heavySquare() - two.lightSquare());
    const double square = fall.rate_mm_s * fall.rate_mm_s;
    const double unsure =
        std::hypot(square * squareU95(fall), (1.0 - share) * two.lightSquare() * squareU95(two.light),
                   share * two.heavySquare() * squareU95(two.heavy));
    if (std::abs(square - expected) > std::hypot(unsure, kDragDiffers * expected))
      return failure(
          ErrorCode::Unsupported,
          fmt::format("the squares of the fall rates do not lie on a line over the heads ({}): its drag "
                      "changes with the head",
                      fall.name));
  }
  return {};
}

Result<TwoHeads> twoHeads(std::span<const HeadFall> given) {
  std::vector<HeadFall> falls(given.begin(), given.end());
  std::sort(falls.begin(), falls.end(),
            [](const HeadFall& a, const HeadFall& b) { return a.head_g < b.head_g; });
  if (falls.size() < 2 || !(falls.back().head_g > falls.front().head_g))
    return failure(ErrorCode::Unsupported, "one head only: film the same body on a second, heavier head");
  for (const HeadFall& fall : falls) {
    if (!(fall.rate_mm_s > 0.0)) return failure(ErrorCode::Unsupported, fall.name + " does not sink");
    if (auto ok = checkAlike(falls.front(), fall); !ok) return tl::unexpected(ok.error());
  }
  TwoHeads out{falls.front(), falls.back()};
  if (out.heavySquare() < kSquaresDiffer * out.lightSquare())
    return failure(
        ErrorCode::Unsupported,
        "the heads are too much alike: the squares of the fall rates have to differ by 1.3 times; film a "
        "heavier one");
  if (out.body_g() <= -out.light.head_g)
    return failure(ErrorCode::Unsupported,
                   "by these rates the lighter head would not sink: check the heads' weights");
  if (auto ok = checkStraight(out, falls); !ok) return tl::unexpected(ok.error());
  return out;
}

}  // namespace

Result<HeadFall> headFallOf(const std::string& name, double head_g, const ReadingSet& set) {
  const Reading* rate = set.find(ReadingId::FallRate);
  if (rate == nullptr) return failure(ErrorCode::Unsupported, name + ": its fall rate was not read");
  HeadFall out{.name = name, .head_g = head_g};
  out.rate_mm_s = std::get<double>(rate->value);
  out.rateU95_mm_s = rate->u95.value_or(0.0);
  if (const Reading* mode = set.find(ReadingId::FallMode)) out.mode = std::get<std::string>(mode->value);
  out.attitude_deg = numberIn(set, ReadingId::FallAttitude);
  out.glideRatio = numberIn(set, ReadingId::GlideRatio);
  out.kick_deg = numberIn(set, ReadingId::FallKickAngle);
  return out;
}

Result<Estimate> bodyWeight(std::span<const HeadFall> falls) {
  const auto two = twoHeads(falls);
  if (!two) return tl::unexpected(two.error());
  Estimate e;
  e.value = two->body_g();
  const double k = (e.value + two->light.head_g) * (e.value + two->heavy.head_g) / two->heads_g();
  const double light = (e.value + two->heavy.head_g) * two->light.headU95_g / two->heads_g();
  const double heavy = (e.value + two->light.head_g) * two->heavy.headU95_g / two->heads_g();
  e.setUncertainty(
      {{UncertaintySource::Scatter, k * std::hypot(squareU95(two->light), squareU95(two->heavy))},
       {UncertaintySource::ViewingAngle, k * kDragDiffers},
       {UncertaintySource::Scale, std::hypot(light, heavy)}});
  e.n = static_cast<double>(falls.size());
  e.grade = e.u95 < 0.3 ? Grade::Good : e.u95 < 1.0 ? Grade::Fair : Grade::Poor;
  return e;
}

Result<Estimate> fallRateOnHead(std::span<const HeadFall> falls, double head_g) {
  const auto two = twoHeads(falls);
  if (!two) return tl::unexpected(two.error());
  const double share = (head_g - two->light.head_g) / two->heads_g();
  const double square = two->lightSquare() + share * (two->heavySquare() - two->lightSquare());
  if (!(square > 0.0))
    return failure(ErrorCode::Unsupported, fmt::format("on a head of {:.2f} g it would not sink", head_g));
  Estimate e;
  e.value = std::sqrt(square);
  const auto ofRate = [&](double u95OfSquare) { return 0.5 * u95OfSquare / e.value; };
  e.setUncertainty({{UncertaintySource::Scatter,
                     ofRate(std::hypot((1.0 - share) * two->lightSquare() * squareU95(two->light),
                                       share * two->heavySquare() * squareU95(two->heavy)))},
                    {UncertaintySource::ViewingAngle, ofRate(kDragDiffers * square)},
                    {UncertaintySource::Scale, ofRate(two->slope() * two->light.headU95_g)}});
  e.n = static_cast<double>(falls.size());
  const bool between = share >= 0.0 && share <= 1.0;
  e.grade = between ? Grade::Good : Grade::Fair;
  if (!between) e.notes.emplace_back("outside of the heads that were filmed");
  return e;
}

Result<KickOnset> kickOnset(std::span<const HeadFall> given) {
  std::vector<HeadFall> falls(given.begin(), given.end());
  std::sort(falls.begin(), falls.end(),
            [](const HeadFall& a, const HeadFall& b) { return a.rate_mm_s < b.rate_mm_s; });
  std::vector<double> rates, angles;
  double unsure = 0.0;
  for (const HeadFall& fall : falls) {
    rates.push_back(fall.rate_mm_s);
    angles.push_back(fall.kick_deg.value_or(0.0));
    unsure = std::max(unsure, fall.rateU95_mm_s);
  }
  if (rates.size() < 3) return failure(ErrorCode::Unsupported, "three falls on different heads are needed");
  const double largest = *std::max_element(angles.begin(), angles.end());
  const double threshold = std::max(kOfLargestKick * largest, kOfSlowestKick * angles.front());
  if (largest <= 0.0) return failure(ErrorCode::Unsupported, "its tail kicks on none of these heads");
  const auto rate = firstReaching(rates, nonDecreasing(angles), threshold);
  if (!rate)
    return failure(ErrorCode::Unsupported,
                   fmt::format("it kicks on the lightest head already ({:.0f} mm/s): film a lighter one",
                               rates.front()));
  KickOnset out;
  out.rate.value = *rate;
  const auto next =
      static_cast<std::size_t>(std::upper_bound(rates.begin(), rates.end(), *rate) - rates.begin());
  const double gap = rates[std::min(next, rates.size() - 1)] - rates[std::max<std::size_t>(next, 1) - 1];
  out.rate.setUncertainty({{UncertaintySource::Scatter, unsure}, {UncertaintySource::Cycles, 0.25 * gap}});
  out.rate.n = static_cast<double>(rates.size());
  out.rate.grade = out.rate.u95 < 0.1 * *rate ? Grade::Good : Grade::Fair;
  const auto body = bodyWeight(given);
  if (!body) {
    out.head = tl::unexpected(body.error());
    return out;
  }
  const auto two = twoHeads(given);
  Estimate head;
  head.value = *rate * *rate / two->slope() - body->value;
  head.setUncertainty({{UncertaintySource::Scatter, 2.0 * *rate * out.rate.u95 / two->slope()},
                       {UncertaintySource::Scale, body->u95}});
  head.n = out.rate.n;
  head.grade = Grade::Fair;
  out.head = head;
  return out;
}

}  // namespace fin
