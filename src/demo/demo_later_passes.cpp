// SPDX-License-Identifier: GPL-3.0-or-later
// The second and the third test day.
#include <fmt/format.h>

#include <tuple>

#include "demo/demo_lures.h"
#include "demo/demo_scenes.h"

namespace fin {
namespace {

/// The twin that comes again on every day, so that days can be told from lures.
void addControl(std::vector<DemoPass>& out, const char* day, double faster, unsigned seed) {
  const StraightPull oblag{.speed_mm_s = 260.0, .roll_deg = 30.0, .lopsided = 0.35, .unevenness = 0.02};
  for (int n = 1; n <= 2; ++n) {
    const std::string file = fmt::format("oblag-18-{}-{}.mp4", day, n);
    const std::string title = fmt::format("Oblag 18, pull {} ({})", n, day);
    out.push_back(again(file.c_str(), title.c_str(), kOblag, oblagBuild(), oblag, (3.78 + 0.05 * n) * faster,
                        43.4 + 0.8 * n, seed + static_cast<unsigned>(n)));
    out.back().onSheet = true;
    out.back().nth = n;
  }
}

}  // namespace

std::vector<DemoPass> saltDayPasses() {
  std::vector<DemoPass> out;
  for (int n = 1; n <= 2; ++n) {
    out.push_back(fallen(fmt::format("vinto-11-salt-{}.mp4", n).c_str(),
                         fmt::format("Vinto 11, fall {} (salt)", n).c_str(), kVinto7, vintoBuild(),
                         vintoFall(207.0 + 1.6 * n, 36.0), 70U + static_cast<unsigned>(n)));
    out.back().nth = n;
  }
  out.push_back({"skrell-95-salt.mp4", "Skrell 95, twitch and pause (salt)", kSkrell,
                 scene(skrellBuild(), skrellTwitches(31.0, 75), View::Side, 4.4, 75)});
  addControl(out, "salt", 1.0, 76);
  return out;
}

std::vector<DemoPass> wornDayPasses() {
  std::vector<DemoPass> out;
  for (const auto& [piece, kick_deg, what] :
       {std::tuple(kWornPiece, 29.0, "worn"), {kUnusedPiece, 36.0, "unused"}}) {
    for (int n = 1; n <= 2; ++n) {
      const int nth = static_cast<int>(out.size()) + 1;
      out.push_back(fallen(fmt::format("vinto-11-{}-{}.mp4", what, n).c_str(),
                           fmt::format("Vinto 11, {} one, fall {}", what, n).c_str(), kVinto7, vintoBuild(),
                           vintoFall(209.0 + n, kick_deg + 0.6 * n), 80U + static_cast<unsigned>(nth)));
      out.back().nth = nth;
      out.back().piece = piece;
    }
  }
  addControl(out, "worn", 1.004, 86);
  return out;
}

}  // namespace fin
