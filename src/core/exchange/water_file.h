// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/season/box.h"
#include "core/season/catches/catch_report.h"
#include "core/season/tie_on.h"

namespace fin {

// What is said of the water, as JSON for other programs: `agile-fin-tie-on/1`, `agile-fin-run/1`,
// `agile-fin-catches/1`, `agile-fin-box/1`. SI units; times in seconds since 1970 UTC.

std::string writeTieOn(const TieOn& result, const std::vector<TieCandidate>& candidates,
                       const std::vector<TieRule>& rules);

/// A day as it ran.
struct RunReport {
  std::string day;
  const Rack* rack = nullptr;
  RunningDay run;
  TierAdvice advice;
  Wasted wasted;
  std::vector<TierRig> bands;
  Result<std::vector<Tier>> tiers = failure(ErrorCode::Unsupported, "no rigs");
  std::vector<std::string> contradictions;
  double silence = 1.0;  ///< chance of what is blank by now, at the season's mean rate
};
std::string writeRun(const RunReport& report);

std::string writeCatches(const CatchReport& report);

struct BoxReport {
  std::vector<BoxLure> lures;
  std::vector<std::string> purposes;
  Box box;
  std::optional<Purchase> buy;
  std::vector<std::pair<std::string, Spares>> spares;  ///< by lure
};
std::string writeBox(const BoxReport& report);

}  // namespace fin
