// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/rate_doubt.h"

#include <QObject>

namespace fin::app {
namespace {

std::optional<double> valueIn(const ReadingSet& set, const char* name) {
  const Reading* reading = set.find(name);
  return reading == nullptr ? std::nullopt : std::optional(std::get<double>(reading->value));
}

/// The same reading in the other passes of the rig.
std::vector<double> peersOf(const Log& log, const std::vector<LoggedPass>& passes, const LoggedPass& pass,
                            const char* name) {
  std::vector<double> out;
  for (const LoggedPass& other : passes) {
    const bool alike = other.id != pass.id && other.request.rigName == pass.request.rigName &&
                       other.request.protocol == pass.request.protocol;
    if (!alike) continue;
    const auto kept = log.readingsOf(other.id);
    if (const auto value = kept && *kept ? valueIn((*kept)->readings, name) : std::nullopt)
      out.push_back(*value);
  }
  return out;
}

}  // namespace

QString rateDoubt(const Log& log, const std::vector<LoggedPass>& passes, const LoggedPass& pass,
                  const ReadingSet& readings) {
  if (pass.request.rigName.empty()) return {};
  for (const char* name : {"wobble_frequency", "kick_frequency", "fall_rate"}) {
    const auto value = valueIn(readings, name);
    if (!value) continue;
    const std::vector<double> peers = peersOf(log, passes, pass, name);
    const auto whole = wholeFactor(*value, peers);
    if (!whole) continue;
    const QString question =
        whole->tooSlow
            ? QObject::tr(
                  "This pass reads %1 times slower than the other %2 of this rig. Was it filmed at "
                  "%1 times the rate that is said here?")
            : QObject::tr(
                  "This pass reads %1 times faster than the other %2 of this rig. Was it filmed at "
                  "a rate %1 times lower than is said here?");
    return question.arg(whole->factor).arg(peers.size());
  }
  return {};
}

}  // namespace fin::app
