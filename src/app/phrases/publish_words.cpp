// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/publish_words.h"

#include <QCoreApplication>
#include <algorithm>
#include <cmath>

#include "app/plots/pass_trace.h"
#include "core/measuring/main_trace.h"

namespace fin::app {
namespace {

QString published(const char* text) {
  return QCoreApplication::translate("publishing", text);
}

QString of100(double share) {
  return QString::number(std::lround(100.0 * share));
}

}  // namespace

QString gradedNote(const Entry& entry) {
  return entry.graded ? QString() : published("shown, not graded");
}

QStringList caveatsOf(const VerdictPlan& plan, const std::vector<Entry>& shown) {
  QStringList out{published("Not every model was tested, and one tank is not a lake.")};
  bool priced = false;
  for (const Entry& entry : shown) priced |= entry.price.has_value();
  if (!plan.pricesFrom.empty()) {
    out += published("Prices: %1. They change.").arg(QString::fromStdString(plan.pricesFrom));
  } else if (priced) {
    out += published("Prices change; when they were noted is not said.");
  }
  for (const Entry& entry : shown) {
    if (entry.graded) continue;
    QString line = published("%1 is shown, not graded").arg(QString::fromStdString(entry.rig));
    if (!entry.whyNotGraded.empty()) line += ": " + QString::fromStdString(entry.whyNotGraded);
    out += line + ".";
  }
  out += plan.interest.empty()
             ? published("Interest of the testers: none was declared.")
             : published("Interest of the testers: %1").arg(QString::fromStdString(plan.interest));
  return out;
}

std::vector<std::string> ungradedAmong(const std::vector<Entry>& entries) {
  std::vector<std::string> out;
  for (const Entry& entry : entries) {
    if (!entry.graded) out.push_back(entry.rig);
  }
  return out;
}

QString preferenceInWords(const Preferred& rig) {
  const auto share = [](double over) { return of100(1.0 / (1.0 + std::exp(-over))); };
  const double half = kNormal95 * rig.se;
  return published("in %1 of 100 (%2 to %3)")
      .arg(share(rig.strength), share(rig.strength - half), share(rig.strength + half));
}

QString pairInWords(const VoteCount& count, const PreferredPair& pair) {
  const QString numbers =
      published("%1 over %2 in %3 of 100 (%4 to %5)")
          .arg(QString::fromStdString(count.rigs[pair.a].rig), QString::fromStdString(count.rigs[pair.b].rig),
               of100(pair.p), of100(pair.low), of100(pair.high));
  return pair.apart() ? numbers : published("%1: too close to call").arg(numbers);
}

QStringList voteInWords(const Vote& vote, const VoteCount& count) {
  QStringList out;
  const QString asked = vote.asked.empty() ? published("Which of the two do you like better?")
                                           : QString::fromStdString(vote.asked);
  if (count.rigs.empty()) return {published("No ballot came back yet.")};
  const auto first = std::find_if(count.pairs.begin(), count.pairs.end(),
                                  [](const PreferredPair& p) { return p.a == 0 && p.b == 1; });
  if (first != count.pairs.end()) {
    out += (first->apart() ? published("“%1” %2 is preferred.")
                           : published("“%1” Too close to call. %2 is ahead."))
               .arg(asked, QString::fromStdString(count.rigs.front().rig));
    out += pairInWords(count, *first) + ".";
  }
  out += published("%1, %2.").arg(counted(count.voters, published("voter"), published("voters")),
                                  counted(count.answers, published("answer"), published("answers")));
  if (count.askedTwice > 0)
    out += published("Asked the same again, voters said the same in %1 of %2.")
               .arg(count.sameTwice)
               .arg(count.askedTwice);
  if (count.halfWins)
    out += published(
        "Some never won or never lost against the rest: half a win each way was added to every pair, so that "
        "numbers can be given at all.");
  out +=
      count.byVoters
          ? published("Uncertainty is from drawing voters again, as one voter's answers go together.")
          : published("Under ten voters uncertainty is from the answers alone: it looks smaller than it is.");
  return out;
}

FilmLanguage filmLanguage(UnitSystem units) {
  return {[units](const Reading& reading) {
            const SpokenValue said = spoken(reading, units);
            const QString value =
                QString("%1 %2 %3").arg(said.value, said.uncertainty, said.unit).simplified();
            return FilmWords{0.0, spokenName(reading.id).toStdString(), value.toStdString()};
          },
          [units](const PassRequest& request, const PassResult& result) {
            const ShownTrace trace = traceFor(request, result, units);
            return FilmTrace{trace.axis.toStdString(), trace.series.t_s, trace.series.y,
                             mainTraceOf(request, result).what == MainTrace::What::Depth};
          }};
}

}  // namespace fin::app
