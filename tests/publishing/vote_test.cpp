// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/exchange/ballot_json.h"
#include "core/publishing/ballot_page.h"

namespace fin {
namespace {

/// Of 20 answers to each pair of four: worked out elsewhere, with a general minimiser.
constexpr double kStrengths[] = {0.591987, -0.157097, 0.184611, -0.619501};
constexpr double kErrors[] = {0.210903, 0.200802, 0.201062, 0.212069};
constexpr double kWon[4][4] = {{0, 14, 11, 16}, {6, 0, 9, 12}, {9, 11, 0, 13.5}, {4, 8, 6.5, 0}};

Wins fourRigs() {
  Wins out(4, std::vector<double>(4));
  for (std::size_t i = 0; i < 4; ++i)
    for (std::size_t j = 0; j < 4; ++j) out[i][j] = kWon[i][j];
  return out;
}

/// As one voter's answers, so that the fit alone tells the uncertainty.
Vote fourRigsAsVote() {
  Vote out{.id = "v", .rigs = {"1", "2", "3", "4"}};
  for (std::size_t i = 0; i < 4; ++i) {
    for (std::size_t j = i + 1; j < 4; ++j) {
      for (int k = 0; k < 20; ++k) {
        const double left = kWon[i][j] - k;
        const double said = left >= 1.0 ? 1.0 : left > 0.0 ? 0.5 : 0.0;
        out.ballots.push_back({std::to_string(i) + std::to_string(j) + std::to_string(k), {{i, j, said}}});
      }
    }
  }
  return out;
}

TEST(Vote, FindsStrengthsAndErrorsOfTheCheckedExample) {
  const PairFit fit = fitPairs(fourRigs());
  EXPECT_FALSE(fit.halfWins);
  for (std::size_t i = 0; i < 4; ++i) {
    EXPECT_NEAR(fit.strength[i], kStrengths[i], 1e-6);
    EXPECT_NEAR(std::sqrt(fit.covariance[i][i]), kErrors[i], 1e-6);
  }
  const double over = fit.strength[0] - fit.strength[2];
  const double half =
      1.959964 * std::sqrt(fit.covariance[0][0] + fit.covariance[2][2] - 2.0 * fit.covariance[0][2]);
  const auto chance = [](double x) { return 1.0 / (1.0 + std::exp(-x)); };
  EXPECT_NEAR(chance(over), 0.600459, 1e-6);
  EXPECT_NEAR(chance(over - half), 0.439098, 1e-6);
  EXPECT_NEAR(chance(over + half), 0.742610, 1e-6);
}

TEST(Vote, OrdersThemAndTellsPairsApart) {
  Vote vote = fourRigsAsVote();
  // The same answers by nine voters, for whom the fit alone tells the uncertainty.
  std::vector<Ballot> few(9);
  for (std::size_t k = 0; k < vote.ballots.size(); ++k) {
    few[k % 9].voter = std::to_string(k % 9);
    few[k % 9].answers.push_back(vote.ballots[k].answers.front());
  }
  const VoteCount whole = countVote(vote);
  EXPECT_EQ(whole.voters, 120U);
  EXPECT_TRUE(whole.byVoters);
  ASSERT_EQ(whole.rigs.size(), 4U);
  EXPECT_EQ(whole.rigs[0].rig, "1");
  EXPECT_EQ(whole.rigs[3].rig, "4");
  EXPECT_NEAR(whole.rigs[0].strength, kStrengths[0], 1e-6);
  // One answer a voter: drawing voters anew tells what the fit tells, but for chance: 2 % from 1000 draws,
  // and about as much again as 120 answers are not many; four times both together.
  EXPECT_NEAR(whole.rigs[0].se, kErrors[0], 0.12 * kErrors[0]);
  EXPECT_EQ(whole.rigs[0].answers, 60U);
  EXPECT_TRUE(whole.pairs[2].apart());   // 1 over 4
  EXPECT_FALSE(whole.pairs[0].apart());  // 1 over 3
  EXPECT_NEAR(whole.pairs[0].p, 0.600459, 1e-6);
  vote.ballots = few;
  EXPECT_FALSE(countVote(vote).byVoters);
}

TEST(Vote, OfVotersWhoAnswerAlikeIsLessSureThanItsAnswersLook) {
  Vote vote{.id = "v", .rigs = {"a", "b"}};
  for (int voter = 0; voter < 12; ++voter) {
    // Each voter is asked one pair; those who are asked ten times over are one opinion.
    Ballot ballot{std::to_string(voter), {}};
    for (int k = 0; k < 10; ++k) ballot.answers.push_back({0, 1, voter < 8 ? 1.0 : 0.0});
    vote.ballots.push_back(ballot);
  }
  const VoteCount count = countVote(vote);
  EXPECT_EQ(count.answers, 12U);
  EXPECT_EQ(count.askedTwice, 12U);
  EXPECT_EQ(count.sameTwice, 12U);
  EXPECT_NEAR(count.pairs[0].p, 8.0 / 12.0, 1e-6);
  EXPECT_FALSE(count.pairs[0].apart());
}

TEST(Vote, AddsHalfAWinEachWayWhereOneNeverLost) {
  Wins wins(3, std::vector<double>(3, 0.0));
  wins[0][1] = 4.0;
  wins[1][2] = 3.0;
  wins[2][1] = 1.0;
  const PairFit fit = fitPairs(wins);
  EXPECT_TRUE(fit.halfWins);
  for (auto& row : wins)
    for (double& w : row) w += 0.5;
  for (std::size_t i = 0; i < 3; ++i) wins[i][i] = 0.0;
  const PairFit said = fitPairs(wins);
  EXPECT_FALSE(said.halfWins);
  for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(fit.strength[i], said.strength[i], 1e-9);
}

TEST(Vote, LeavesOutWhatIsShownButNotGraded) {
  Vote vote{.id = "v", .rigs = {"ours", "a", "b"}};
  vote.ballots = {{"x", {{0, 1, 1.0}, {1, 2, 1.0}}}, {"y", {{0, 2, 1.0}, {2, 1, 1.0}}}};
  const VoteCount count = countVote(vote, {"ours"});
  ASSERT_EQ(count.rigs.size(), 2U);
  EXPECT_EQ(count.answers, 2U);
  EXPECT_NEAR(count.rigs[0].strength, 0.0, 1e-9);
}

TEST(Vote, CountsAVoterOnceAndNoBallotOfAnother) {
  Vote vote = votePrepared({}, {"a", "b", "c"}, 7);
  EXPECT_EQ(vote.rigs.size(), 3U);
  const Ballot ballot{"x", {{0, 1, 1.0}}};
  EXPECT_EQ(whyNotCounted(vote, vote.id, ballot), "");
  EXPECT_NE(whyNotCounted(vote, "other", ballot), "");
  EXPECT_NE(whyNotCounted(vote, vote.id, {"x", {{0, 3, 1.0}}}), "");
  vote.ballots.push_back(ballot);
  EXPECT_NE(whyNotCounted(vote, vote.id, ballot), "");
  // More rigs later: places that ballots name stay.
  const Vote more = votePrepared(vote, {"c", "d", "a", "b"}, 8);
  EXPECT_EQ(more.id, vote.id);
  EXPECT_EQ(more.ballots, vote.ballots);
  ASSERT_EQ(more.rigs.size(), 4U);
  EXPECT_TRUE(std::equal(vote.rigs.begin(), vote.rigs.end(), more.rigs.begin()));
}

TEST(BallotFile, IsReadAsItWasWrittenAndToTheLetter) {
  const Ballot ballot{"f00d", {{0, 2, 1.0}, {2, 1, 0.0}, {1, 0, 0.5}}};
  const auto read = parseBallot(writeBallot("v1", ballot));
  ASSERT_TRUE(read) << read.error().message;
  EXPECT_EQ(read->vote, "v1");
  EXPECT_EQ(read->ballot, ballot);
  const auto wrongKey = [](const std::string& text) {
    const auto bad = parseBallot(text);
    return bad ? std::string("read") : bad.error().where;
  };
  const std::string head = R"({"format":"agile-fin-ballot/1","vote":"v","voter":"x",)";
  EXPECT_EQ(wrongKey(head + R"("answers":[]})"), "answers");
  EXPECT_EQ(wrongKey(head + R"("answers":[{"left":"k1","right":"2","choice":"left"}]})"), "answers[0].right");
  EXPECT_EQ(wrongKey(head + R"("answers":[{"left":"k1","right":"k2","choice":"both"}]})"),
            "answers[0].choice");
  EXPECT_EQ(wrongKey(head + R"("answers":[{"left":"k1","right":"k2","choice":"same"}],"name":"me"})"),
            "name");
  EXPECT_EQ(wrongKey("{"), "ballot");
}

TEST(BallotPage, NamesNobodyAndHoldsNothingThatEndsItsScript) {
  Vote vote{.id = "0a", .asked = "</script><b>Which?</b> & why", .rigs = {"Vinto 11", "Mirk"}};
  const std::string page = ballotPage(vote, {{0, "clips/k1.mp4", "clips/k1.webm"}, {1, "clips/k2.mp4", ""}});
  EXPECT_EQ(page.find("Vinto"), std::string::npos);
  EXPECT_EQ(page.find("Mirk"), std::string::npos);
  EXPECT_EQ(page.find("<b>Which"), std::string::npos);
  EXPECT_EQ(page.find("http"), page.find("http-equiv"));  // no address in it
  EXPECT_EQ(page.find("</script>"), page.rfind("</script>"));
  EXPECT_NE(page.find("\"clips/k1.mp4\""), std::string::npos);
}

}  // namespace
}  // namespace fin
