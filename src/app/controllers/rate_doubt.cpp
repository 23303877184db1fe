// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/rate_doubt.h"

#include <QObject>

#include "core/comparison/rate_doubt.h"

namespace fin::app {
namespace {

/// What the other passes of its rig and protocol gave.
std::vector<ReadingSet> peersOf(const Log& log, const std::vector<LoggedPass>& passes,
                                const LoggedPass& pass) {
  std::vector<ReadingSet> out;
  for (const LoggedPass& other : passes) {
    const bool alike = other.id != pass.id && other.request.rigName == pass.request.rigName &&
                       other.request.protocol == pass.request.protocol;
    const auto kept = alike ? log.readingsOf(other.id) : std::shared_ptr<const Measurement>();
    if (kept && *kept) out.push_back((*kept)->readings);
  }
  return out;
}

}  // namespace

QString rateDoubt(const Log& log, const std::vector<LoggedPass>& passes, const LoggedPass& pass,
                  const ReadingSet& readings) {
  if (pass.request.rigName.empty()) return {};
  const auto doubt = fin::rateDoubt(readings, peersOf(log, passes, pass));
  if (!doubt) return {};
  const QString question =
      doubt->tooSlow ? QObject::tr(
                           "This pass reads %1 times slower than the other %2 of this rig. Was it filmed at "
                           "%1 times the rate that is said here?")
                     : QObject::tr(
                           "This pass reads %1 times faster than the other %2 of this rig. Was it filmed at "
                           "a rate %1 times lower than is said here?");
  return question.arg(doubt->factor).arg(doubt->peers);
}

}  // namespace fin::app
