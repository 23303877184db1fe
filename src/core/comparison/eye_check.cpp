// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/eye_check.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <random>

#include "core/comparison/points.h"

namespace fin {

EyeCheck checkEye(const std::vector<EyeScore>& scores, const std::vector<ComparedPass>& passes,
                  ReadingId property) {
  std::map<PassId, std::vector<double>> byPass;
  for (const EyeScore& score : scores) {
    if (score.property == property) byPass[score.pass].push_back(score.score);
  }
  EyeCheck out;
  std::vector<std::vector<double>> repeats;
  for (const auto& [pass, given] : byPass) repeats.push_back(given);
  if (const auto scatter = pooledScatter(repeats)) out.repeatSd = scatter->sd;
  std::vector<double> seen, read;
  for (const ComparedPass& pass : passes) {
    const auto number = numberIn(pass.readings, property);
    const auto scored = byPass.find(pass.id);
    if (!number || scored == byPass.end()) continue;
    out.passes.push_back({pass.id, meanOf(scored->second), *number});
    seen.push_back(out.passes.back().score);
    read.push_back(*number);
  }
  const std::vector<double> eyePlaces = placesOf(seen);
  const std::vector<double> readingPlaces = placesOf(read);
  for (std::size_t i = 0; i < out.passes.size(); ++i) {
    out.passes[i].eyePlace = eyePlaces[i];
    out.passes[i].readingPlace = readingPlaces[i];
  }
  out.agreement = rankAgreement(seen, read);
  std::stable_sort(out.passes.begin(), out.passes.end(), [](const EyeAndReading& a, const EyeAndReading& b) {
    return std::abs(a.eyePlace - a.readingPlace) > std::abs(b.eyePlace - b.readingPlace);
  });
  return out;
}

std::vector<PassId> blindOrder(const std::vector<PassId>& passes, unsigned seed) {
  std::mt19937 random(seed);
  std::vector<PassId> first = passes;
  std::vector<PassId> second = passes;
  std::shuffle(first.begin(), first.end(), random);
  std::shuffle(second.begin(), second.end(), random);
  if (first.size() > 1 && second.front() == first.back())
    std::rotate(second.begin(), second.begin() + 1, second.end());
  first.insert(first.end(), second.begin(), second.end());
  return first;
}

}  // namespace fin
