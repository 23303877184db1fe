// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/ballot_json.h"
#include "core/records/day_readings.h"
#include "core/units/date.h"

namespace fin::cli {
namespace {

/// A day that has a vote: the one that was named, else the newest.
Result<DayId> dayWithVote(const Log& log, const std::string& name) {
  const auto days = log.days();
  if (!days) return tl::unexpected(days.error());
  std::optional<DayId> found;
  for (const DayHead& day : *days) {
    if (!name.empty() && day.name != name && day.date != name) continue;
    const auto verdict = log.verdict(day.id);
    if (verdict && !verdict->vote.id.empty()) found = day.id;
  }
  if (found) return *found;
  return failure(
      ErrorCode::BadRequest,
      name.empty() ? "no day of the log has a vote" : "the log has no day with a vote called " + name, "day");
}

/// Adds the ballots of files to a vote; what cannot be counted is told and passed over.
void addBallots(Vote& vote, const std::vector<std::string>& files) {
  for (const std::string& file : files) {
    const auto tell = [&file](const std::string& why) {
      fmt::print(stderr, "agile-fin-cli: {}: {}\n", file, why);
    };
    const auto text = slurp(file);
    const auto ballot = text ? parseBallot(*text) : tl::unexpected(text.error());
    if (!ballot) {
      tell(ballot.error().message);
      continue;
    }
    const std::string why = whyNotCounted(vote, ballot->vote, ballot->ballot);
    if (!why.empty()) {
      tell(why);
    } else {
      vote.ballots.push_back(ballot->ballot);
    }
  }
}

std::vector<std::string> ungraded(const Rack& rack) {
  std::vector<std::string> out;
  for (const Rig& rig : rack.rigs) {
    const Model* model = rack.model(rig.model);
    if (model != nullptr && !model->graded) out.push_back(rack.fullName(rig));
  }
  return out;
}

Result<std::string> counted(const BallotCommand& command) {
  if (!std::filesystem::is_regular_file(command.log))
    return failure(ErrorCode::Unreadable, command.log.string() + ": there is no such log", "log");
  const auto log = Log::open(command.log);
  if (!log) return tl::unexpected(log.error());
  const auto day = dayWithVote(**log, command.day);
  if (!day) return tl::unexpected(day.error());
  const auto verdict = (*log)->verdict(*day);
  if (!verdict) return tl::unexpected(verdict.error());
  const auto plan = (*log)->plan(*day);
  if (!plan) return tl::unexpected(plan.error());
  FingerprintCache fingerprints;
  const auto readings = dayReadings(**log, *plan, fingerprints);
  if (!readings) return tl::unexpected(readings.error());
  Vote vote = verdict->vote;
  addBallots(vote, command.ballots);
  if (vote.ballots.empty())
    return failure(ErrorCode::BadRequest, "no ballot came back yet: name some", "ballots");
  const VoteCount count = countVote(vote, ungraded(plan->rack));
  return writeVoteCount(vote, count, readingsAndVote(count, readings->current));
}

}  // namespace

Exit run(const BallotCommand& command) {
  const auto text = counted(command);
  if (!text) return complain(text.error());
  if (auto ok = handOut(command.out, *text); !ok) return complain(ok.error());
  return Exit::Done;
}

}  // namespace fin::cli
