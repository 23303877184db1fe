// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/verdict_json.h"

#include "core/exchange/reading_word.h"

namespace fin {

FIN_ENUM_AS_WORD(Direction, directionNamed)

constexpr auto keysOf(const PointsCurve*) {
  return std::tuple{key("none", &PointsCurve::none), key("half", &PointsCurve::half),
                    key("full", &PointsCurve::full)};
}

constexpr auto keysOf(const Wish*) {
  return std::tuple{key("reading", &Wish::reading),  key("direction", &Wish::direction),
                    key("target", &Wish::target),    key("class", &Wish::className),
                    key("weight", &Wish::weight),    key("speed_mm_s", &Wish::speed_mm_s),
                    key("curve", &Wish::curve),      key("judged", &Wish::judged),
                    key("demanded", &Wish::demanded)};
}

constexpr auto keysOf(const Judgements::Score*) {
  using Score = Judgements::Score;
  return std::tuple{key("property", &Score::property), key("rig", &Score::rig), key("judge", &Score::judge),
                    key("points", &Score::points)};
}

constexpr auto keysOf(const Judgements::Duel*) {
  using Duel = Judgements::Duel;
  return std::tuple{key("property", &Duel::property), key("first", &Duel::first),
                    key("second", &Duel::second), key("for_first", &Duel::forFirst)};
}

constexpr auto keysOf(const Judgements*) {
  return std::tuple{key("properties", &Judgements::properties), key("scores", &Judgements::scores),
                    key("duels", &Judgements::duels)};
}

constexpr auto keysOf(const Purpose*) {
  return std::tuple{key("name", &Purpose::name), key("wishes", &Purpose::wishes)};
}

constexpr auto keysOf(const Worth*) {
  return std::tuple{key("reading", &Worth::reading), key("difference", &Worth::difference)};
}

constexpr auto keysOf(const BallotAnswer*) {
  return std::tuple{key("left", &BallotAnswer::left), key("right", &BallotAnswer::right),
                    key("for_left", &BallotAnswer::forLeft)};
}

constexpr auto keysOf(const Ballot*) {
  return std::tuple{key("voter", &Ballot::voter), key("answers", &Ballot::answers)};
}

constexpr auto keysOf(const Vote*) {
  return std::tuple{key("id", &Vote::id), key("asked", &Vote::asked), key("rigs", &Vote::rigs),
                    key("ballots", &Vote::ballots)};
}

constexpr auto keysOf(const VerdictPlan*) {
  return std::tuple{key("wishes", &VerdictPlan::wishes),
                    key("purposes", &VerdictPlan::purposes),
                    key("prey_mm", &VerdictPlan::prey_mm),
                    key("prices_from", &VerdictPlan::pricesFrom),
                    key("interest", &VerdictPlan::interest),
                    key("conclusion", &VerdictPlan::conclusion),
                    key("judgements", &VerdictPlan::judgements),
                    key("worths", &VerdictPlan::worths),
                    key("vote", &VerdictPlan::vote)};
}

namespace records {

std::string toJson(const VerdictPlan& plan) {
  return write(plan);
}
Result<VerdictPlan> verdictFrom(const std::string& text) {
  return readAs<VerdictPlan>(text);
}

}  // namespace records
}  // namespace fin
