// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/verdict_words.h"

#include <QCoreApplication>
#include <QStringList>
#include <algorithm>
#include <numeric>

namespace fin::app {
namespace {

QString said(const char* text) {
  return QCoreApplication::translate("verdict", text);
}

QString nameOf(const ScoreTable& table, std::size_t entry) {
  return QString::fromStdString(table.entries[entry].rig);
}

QString why(const ScoreTable& table, const Ranking::Left& left) {
  if (left.lacks.empty()) return QString::fromStdString(left.why);
  QStringList names;
  for (const std::size_t wish : left.lacks) names += spokenWish(table.wishes[wish]);
  return said("not read: %1").arg(names.join(", "));
}

}  // namespace

QString spokenWish(const Wish& wish) {
  if (!wish.judged.empty()) return said("%1 (judged)").arg(QString::fromStdString(wish.judged));
  const QString name = spokenName(wish.reading);
  return wish.className.empty() ? name : QString("%1: %2").arg(name, QString::fromStdString(wish.className));
}

QString spokenValue(const Wish& wish, const ScoredValue& value, UnitSystem units) {
  if (wish.judged.empty()) return spokenAs(wish.reading, value.value, value.u95, units);
  return QString("%1 ± %2").arg(value.value, 0, 'f', 1).arg(value.u95, 0, 'f', 1);
}

QString plainNumber(double number, int decimals) {
  QString out = QString::number(number, 'f', decimals);
  while (out.contains('.') && (out.endsWith('0') || out.endsWith('.'))) out.chop(1);
  return out;
}

QString percent(double share) {
  if (share > 0.0 && share < 0.005) return said("under 1 %");
  if (share < 1.0 && share > 0.995) return said("over 99 %");
  return QString("%1 %").arg(100.0 * share, 0, 'f', 0);
}

QString firstInWords(const ScoreTable& table, const Ranking& ranking) {
  if (!ranking.whyNone.empty()) return said("No order yet: %1").arg(QString::fromStdString(ranking.whyNone));
  QStringList first;
  for (const std::size_t entry : firstPlaceOf(ranking).entries) first += nameOf(table, entry);
  const bool shared = first.size() > 1;
  const QString who = first.join(said(" and "));
  if (firstPlaceOf(ranking).firmness != Firmness::TooClose)
    return (shared ? said("%1 share the first place") : said("%1 comes first")).arg(who);
  return (shared ? said("Too close to call. %1 share the first place")
                 : said("Too close to call. %1 is ahead"))
      .arg(who);
}

QString firmnessInWords(const ScoreTable& table, const Ranking& ranking) {
  const FirstPlace place = firstPlaceOf(ranking);
  if (place.firmness == Firmness::None) return {};
  const Chances& chances = ranking.placings.front().first;
  QStringList rivals;
  for (const Rival& rival : place.rivals)
    rivals += QString("%1 (%2)").arg(nameOf(table, rival.entry), percent(rival.chance));
  const QString numbers = said("%1 of the cases the measuring allows, and %2 under other weights")
                              .arg(percent(chances.byMeasuring), percent(chances.byWeights));
  if (place.firmness == Firmness::Firm)
    return said("The order is firm at the top: first in %1.").arg(numbers);
  if (place.firmness == Firmness::Likely) {
    return said("Likely, not certain: first in %1. Also possible: %2.")
        .arg(numbers, rivals.isEmpty() ? said("each of the others a little") : rivals.join(", "));
  }
  return said("First in %1. Could also be first: %2.")
      .arg(numbers, rivals.isEmpty() ? said("any of the others") : rivals.join(", "));
}

QString chanceInWords(const ScoreTable& table, const Placing& placing) {
  for (std::size_t w = 0; w < table.wishes.size(); ++w) {
    if (placing.cells[w] && !table.scatterKnown[w]) return said("one pass");
  }
  return percent(placing.first.byMeasuring);
}

QString placesInWords(const Placing& placing) {
  const QString from = plainNumber(placing.placeFrom, 1), to = plainNumber(placing.placeTo, 1);
  return from == to ? from : said("%1 to %2").arg(from, to);
}

QStringList leftInWords(const ScoreTable& table, const Ranking& ranking) {
  QStringList out;
  for (const Entry& entry : table.entries) {
    if (entry.graded) continue;
    out += said("%1 is shown, not graded: %2.")
               .arg(QString::fromStdString(entry.rig), entry.whyNotGraded.empty()
                                                           ? said("the tester has an interest in it")
                                                           : QString::fromStdString(entry.whyNotGraded));
  }
  // Those that lack the same in one line.
  std::vector<std::pair<QString, QStringList>> left;
  for (const Ranking::Left& one : ranking.left) {
    const QString reason = why(table, one);
    const auto same =
        std::find_if(left.begin(), left.end(), [&](const auto& l) { return l.first == reason; });
    auto& names = same == left.end() ? left.emplace_back(reason, QStringList()).second : same->second;
    names += nameOf(table, one.entry);
  }
  for (const auto& [reason, names] : left) out += said("Not ranked: %1 (%2).").arg(names.join("; "), reason);
  if (ranking.whyNone.empty()) {
    QStringList alone;
    for (std::size_t w = 0; w < table.wishes.size(); ++w) {
      if (ranking.placings.front().cells[w] && !table.scatterKnown[w]) alone += spokenWish(table.wishes[w]);
    }
    if (!alone.isEmpty()) {
      out +=
          said(
              "One pass of each rig only: %1. How much passes differ is not known, so no chance can be told.")
              .arg(alone.join(", "));
    }
    QStringList missing;
    for (const std::size_t wish : ranking.nonDiscriminating) missing += spokenWish(table.wishes[wish]);
    if (!ranking.unread.empty()) {
      QStringList unread;
      for (const std::size_t wish : ranking.unread) unread += spokenWish(table.wishes[wish]);
      out += said("Film this to know: %1. No two rigs were read for it yet.").arg(unread.join(", "));
    }
    if (const QString passed = passedInWords(table, ranking); !passed.isEmpty()) out += passed;
    if (!missing.isEmpty())
      out += said("Does not count, as fewer than two rigs were read or none differs: %1.")
                 .arg(missing.join(", "));
  }
  return out;
}

QString whyNoPick(const ScoreTable& purpose, const Ranking& ranking) {
  QStringList missing;
  const auto add = [&](std::size_t wish) {
    const QString name = spokenWish(purpose.wishes[wish]).toLower();
    if (!missing.contains(name)) missing += name;
  };
  for (const std::size_t wish : ranking.unread) add(wish);
  // What the rig that lacks least lacks.
  const auto least = std::min_element(
      ranking.left.begin(), ranking.left.end(),
      [](const Ranking::Left& a, const Ranking::Left& b) { return a.lacks.size() < b.lacks.size(); });
  if (least != ranking.left.end()) {
    for (const std::size_t wish : least->lacks) add(wish);
  }
  if (purpose.wishes.empty() || missing.isEmpty()) return QString::fromStdString(ranking.whyNone);
  return said("Film this to know: %1; two passes each of two rigs or more").arg(missing.join(", "));
}

QString passedInWords(const ScoreTable& table, const Ranking& ranking) {
  QStringList names;
  for (const std::size_t entry : ranking.couldPass) names += nameOf(table, entry);
  if (names.isEmpty()) return {};
  return said("What is not read yet could put %1 ahead.").arg(names.join(said(" or ")));
}

QString reasonInWords(const ScoreTable& table, const Placing& placing, UnitSystem units) {
  std::vector<std::size_t> order(table.wishes.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    return table.wishes[a].weight > table.wishes[b].weight;
  });
  QStringList parts;
  QStringList unknown;
  for (const std::size_t w : order) {
    const Wish& wish = table.wishes[w];
    const QString name = spokenWish(wish);
    if (const auto& cell = table.cells[w][placing.entry]) {
      parts += QString("%1 %2").arg(name.toLower(), spokenValue(wish, *cell, units));
    } else {
      unknown += name.toLower();
    }
  }
  QString out = parts.join("; ");
  if (!unknown.isEmpty()) out += said("; not read: %1").arg(unknown.join(", "));
  return out;
}

}  // namespace fin::app
