// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/judging.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <map>

#include "core/units/estimate.h"

namespace fin {
namespace {

constexpr int kMostSteps = 60;
constexpr double kSettled = 1e-12;

/// First and second derivatives of the logarithm of the likelihood.
struct Slopes {
  Eigen::VectorXd first;
  Eigen::MatrixXd second;  ///< with its sign turned
};

/// So much of one duel was won by `i`, whose strength lies so far over that of `j`; of a middling one where
/// none is given.
void addDuel(Slopes& slopes, Eigen::Index i, std::optional<Eigen::Index> j, double over, double won) {
  const double p = 1.0 / (1.0 + std::exp(-over)), curve = p * (1.0 - p);
  slopes.first[i] += won - p;
  slopes.second(i, i) += curve;
  if (!j) return;
  slopes.first[*j] -= won - p;
  slopes.second(*j, *j) += curve;
  slopes.second(i, *j) -= curve;
  slopes.second(*j, i) -= curve;
}

/// A judge's scores of one rig: their mean, and how sure repeats make it.
ComparedValue valueOf(const std::vector<double>& points, int judge) {
  ComparedValue out{.value = meanOf(points), .block = judge};
  if (const auto scatter = pooledScatter({points}))
    out.u95 = kNormal95 * scatter->sd / std::sqrt(static_cast<double>(points.size()));
  return out;
}

std::vector<ComparedRig> scoredRigs(const Judgements& judgements, const std::string& property) {
  std::vector<std::string> judges;
  std::vector<std::pair<std::string, std::map<int, std::vector<double>>>> rigs;
  for (const Judgements::Score& score : judgements.scores) {
    if (score.property != property) continue;
    auto judge = std::find(judges.begin(), judges.end(), score.judge);
    if (judge == judges.end()) judge = judges.insert(judges.end(), score.judge);
    auto rig = std::find_if(rigs.begin(), rigs.end(), [&](const auto& r) { return r.first == score.rig; });
    if (rig == rigs.end()) rig = rigs.insert(rigs.end(), {score.rig, {}});
    rig->second[static_cast<int>(judge - judges.begin())].push_back(score.points);
  }
  std::vector<ComparedRig> out;
  for (const auto& [name, byJudge] : rigs) {
    ComparedRig& rig = out.emplace_back(ComparedRig{name, {}});
    for (const auto& [judge, points] : byJudge) rig.values.push_back(valueOf(points, judge));
  }
  return out;
}

}  // namespace

std::vector<Strength> strengthsOf(const std::vector<Judgements::Duel>& duels) {
  std::vector<Strength> out;
  const auto indexOf = [&out](const std::string& rig) {
    const auto known = std::find_if(out.begin(), out.end(), [&](const Strength& s) { return s.rig == rig; });
    if (known != out.end()) return known - out.begin();
    out.push_back({.rig = rig});
    return static_cast<std::ptrdiff_t>(out.size() - 1);
  };
  struct Met {
    Eigen::Index a = 0, b = 0;
    double forA = 0.0;
  };
  std::vector<Met> met;
  for (const Judgements::Duel& duel : duels) {
    if (duel.first == duel.second) continue;
    const Eigen::Index a = indexOf(duel.first), b = indexOf(duel.second);
    met.push_back({a, b, duel.forFirst});
    ++out[static_cast<std::size_t>(a)].duels;
    ++out[static_cast<std::size_t>(b)].duels;
  }
  const auto n = static_cast<Eigen::Index>(out.size());
  if (n == 0) return out;
  Eigen::VectorXd strength = Eigen::VectorXd::Zero(n);
  Eigen::MatrixXd second;
  for (int step = 0; step < kMostSteps; ++step) {
    Slopes slopes{Eigen::VectorXd::Zero(n), Eigen::MatrixXd::Zero(n, n)};
    for (const Met& m : met) addDuel(slopes, m.a, m.b, strength[m.a] - strength[m.b], m.forA);
    for (Eigen::Index i = 0; i < n; ++i) addDuel(slopes, i, {}, strength[i], 0.5);
    second = slopes.second;
    const Eigen::VectorXd by = second.ldlt().solve(slopes.first);
    strength += by;
    if (by.norm() < kSettled) break;
  }
  const Eigen::MatrixXd covariance = second.ldlt().solve(Eigen::MatrixXd::Identity(n, n));
  for (Eigen::Index i = 0; i < n; ++i) {
    out[static_cast<std::size_t>(i)].value = strength[i];
    out[static_cast<std::size_t>(i)].u95 = kNormal95 * std::sqrt(covariance(i, i));
  }
  return out;
}

std::vector<std::pair<std::string, ScoredValue>> judgedValues(const Judgements& judgements,
                                                              const std::string& property) {
  std::vector<std::pair<std::string, ScoredValue>> out;
  const std::vector<ComparedRig> scored = scoredRigs(judgements, property);
  if (!scored.empty()) {
    for (const RigMean& rig : compare(scored, HowCompared{}).rigs)
      out.emplace_back(rig.rig, ScoredValue{rig.mean, rig.u95(), rig.passes, rig.letters});
    return out;
  }
  std::vector<Judgements::Duel> duels;
  std::copy_if(judgements.duels.begin(), judgements.duels.end(), std::back_inserter(duels),
               [&](const Judgements::Duel& d) { return d.property == property; });
  for (const Strength& s : strengthsOf(duels))
    out.emplace_back(s.rig, ScoredValue{s.value, s.u95, s.duels, {}});
  return out;
}

}  // namespace fin
