// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_judges.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <random>

#include "demo/demo_passes.h"

namespace fin {
namespace {

constexpr unsigned kJudgesSeed = 1307;
constexpr double kEyeSd = 0.7;  ///< of one score
constexpr double kLikesSpoons = 2.0;

struct Casting {
  RigId rig;
  std::array<double, 3> points;  ///< by the designer, the helper, a visitor
};
constexpr Casting kCasting[] = {{kVinto7, {7, 8, 7}}, {kVinto4, {4, 5, 5}}, {kSkrell, {5, 6, 5}},
                                {kPellow, {9, 6, 6}}, {kOblig, {9, 9, 8}},  {kOblag, {9, 8, 9}},
                                {kTavver, {7, 6, 7}}, {kHasp, {7, 7, 6}}};
constexpr std::array<const char*, 3> kJudges{"the designer", "the helper", "a visitor"};

/// From the one that looked best to the one that looked worst.
constexpr RigId kByLook[] = {kSkrell, kPellow, kVinto7, kHasp, kOblig, kTavver};

}  // namespace

Judgements demoJudgements(const Rack& rack) {
  Judgements out = usualJudgements();
  const auto name = [&rack](RigId rig) { return rack.fullName(*rack.rig(rig)); };
  for (const Casting& rig : kCasting) {
    for (std::size_t judge = 0; judge < kJudges.size(); ++judge)
      out.scores.push_back({"Casting", name(rig.rig), kJudges[judge], rig.points[judge]});
  }
  std::mt19937 random(kJudgesSeed);
  std::uniform_real_distribution<double> draw(0.0, 1.0);
  for (std::size_t better = 0; better < std::size(kByLook); ++better) {
    for (std::size_t worse = better + 1; worse < std::size(kByLook); ++worse) {
      const double chance = 1.0 / (1.0 + std::exp(-0.8 * static_cast<double>(worse - better)));
      out.duels.push_back(
          {"Look", name(kByLook[better]), name(kByLook[worse]), draw(random) < chance ? 1.0 : 0.0});
    }
  }
  return out;
}

std::vector<EyeScore> demoEyeScores(const std::vector<LoggedPass>& passes) {
  std::map<std::string, const DemoPass*> byTitle;
  std::vector<DemoPass> filmed = demoPasses();
  for (DemoPass& pass : furtherPasses()) filmed.push_back(std::move(pass));
  for (const DemoPass& pass : filmed) byTitle[pass.title] = &pass;
  std::vector<PassId> shown;
  std::map<PassId, double> looks;
  for (const LoggedPass& pass : passes) {
    const auto found = byTitle.find(pass.title);
    if (found == byTitle.end() || pass.camera != "top" || found->second->saidRate) continue;
    const auto* pull = std::get_if<StraightPull>(&found->second->scene.motion);
    if (pull == nullptr || pull->wobble_deg < 5.0) continue;
    const bool spoon = found->second->rig == RigId(kOblig) || found->second->rig == RigId(kOblag);
    shown.push_back(pass.id);
    looks[pass.id] = pull->wobble_Hz + (spoon ? kLikesSpoons : 0.0);
  }
  std::mt19937 random(kJudgesSeed);
  std::normal_distribution<double> off(0.0, kEyeSd);
  std::vector<EyeScore> out;
  for (const PassId pass : blindOrder(shown, kJudgesSeed))
    out.push_back(
        {pass, ReadingId::WobbleFrequency, std::round(std::clamp(looks[pass] + off(random), 0.0, 10.0))});
  return out;
}

}  // namespace fin
