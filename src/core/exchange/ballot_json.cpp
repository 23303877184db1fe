// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/ballot_json.h"

#include "core/exchange/strict_json.h"
#include "core/publishing/ballot_page.h"

namespace fin {
namespace {

using nlohmann::json;
using strict::fail;
using strict::Object;

constexpr strict::Document kBallot{"ballot", "agile-fin-ballot/1"};
constexpr std::size_t kLongestVoter = 64;
constexpr std::size_t kMostAnswers = 1000;

std::size_t placeIn(Object& answer, const char* key) {
  const auto place = placeOfBallotCode(answer.text(key));
  if (!place) fail(answer.pathOf(key), "is not the code of an entry");
  return *place;
}

double choiceIn(Object& answer) {
  const std::string choice = answer.text("choice");
  if (choice == "left") return 1.0;
  if (choice == "right") return 0.0;
  if (choice != "same") fail(answer.pathOf("choice"), "must be left, right or same");
  return 0.5;
}

const char* choiceOf(double forLeft) {
  return forLeft > 0.5 ? "left" : forLeft < 0.5 ? "right" : "same";
}

ReadBallot readBallot(const json& root) {
  Object ballot(root, "", kBallot);
  ballot.needFormat();
  ReadBallot out{ballot.text("vote"), {ballot.text("voter"), {}}};
  if (out.ballot.voter.empty() || out.ballot.voter.size() > kLongestVoter)
    fail("voter", "must be a text of 1 to 64 characters");
  ballot.need("answers");
  ballot.eachOf("answers", [&out](Object& answer) {
    out.ballot.answers.push_back({placeIn(answer, "left"), placeIn(answer, "right"), choiceIn(answer)});
  });
  if (out.ballot.answers.empty()) fail("answers", "holds none");
  if (out.ballot.answers.size() > kMostAnswers) fail("answers", "holds more than any page asks");
  ballot.nothingElse();
  return out;
}

}  // namespace

Result<ReadBallot> parseBallot(const std::string& text) {
  return strict::parse(text, kBallot, readBallot);
}

std::string writeBallot(const std::string& vote, const Ballot& ballot) {
  json out{{"format", kBallot.format}, {"vote", vote}, {"voter", ballot.voter}, {"answers", json::array()}};
  for (const BallotAnswer& answer : ballot.answers)
    out["answers"].push_back({{"left", ballotCode(answer.left)},
                              {"right", ballotCode(answer.right)},
                              {"choice", choiceOf(answer.forLeft)}});
  return out.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

std::string writeVoteCount(const Vote& vote, const VoteCount& count,
                           const std::vector<ReadingAndVote>& readings) {
  json out{{"format", "agile-fin-vote/1"},
           {"vote", vote.id},
           {"asked", vote.asked},
           {"voters", count.voters},
           {"answers", count.answers},
           {"asked_twice", count.askedTwice},
           {"same_twice", count.sameTwice},
           {"half_wins_added", count.halfWins},
           {"uncertainty_from", count.byVoters ? "voters" : "fit"},
           {"rigs", json::array()},
           {"pairs", json::array()},
           {"readings", json::array()}};
  for (const Preferred& rig : count.rigs)
    out["rigs"].push_back(
        {{"rig", rig.rig}, {"strength", rig.strength}, {"se", rig.se}, {"answers", rig.answers}});
  for (const PreferredPair& pair : count.pairs)
    out["pairs"].push_back({{"a", count.rigs[pair.a].rig},
                            {"b", count.rigs[pair.b].rig},
                            {"chance_a", pair.p},
                            {"low", pair.low},
                            {"high", pair.high},
                            {"apart", pair.apart()}});
  for (const ReadingAndVote& one : readings) {
    json reading{{"name", toString(one.reading)}, {"rigs", one.rigs}};
    if (one.tooFew.empty()) {
      reading["rho"] = one.agreement.rho;
      reading["p"] = one.p;
    } else {
      reading["why_not"] = one.tooFew;
    }
    out["readings"].push_back(std::move(reading));
  }
  return out.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

}  // namespace fin
