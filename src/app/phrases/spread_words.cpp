// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/spread_words.h"

#include <QObject>
#include <algorithm>
#include <cmath>
#include <map>

namespace fin::app {
namespace {

constexpr std::size_t kWorthFilming = 8;  ///< more passes of each

QString nameIn(const Spread& spread, std::size_t rig) {
  return QString::fromStdString(spread.rigs[rig].rig);
}

/// An amount by which two rigs differ, without its sign.
QString amount(const Spread& spread, double difference, ReadingId reading, UnitSystem units, bool withUnit) {
  const ShownUnit unit = differenceUnit(spread.scaling, reading, units);
  const QString number = signedNumber(std::abs(difference) * unit.factor);
  return withUnit && !unit.unit.isEmpty() ? QString("%1 %2").arg(number, unit.unit) : number;
}

const RigPair* pairOf(const Spread& spread, std::size_t a, std::size_t b) {
  const auto found = std::find_if(spread.pairs.begin(), spread.pairs.end(),
                                  [&](const RigPair& p) { return p.a == a && p.b == b; });
  return found == spread.pairs.end() ? nullptr : &*found;
}

/// "7 to 10 %"
QString between(const Spread& spread, const RigPair& pair, ReadingId reading, UnitSystem units) {
  return QObject::tr("%1 to %2")
      .arg(amount(spread, pair.from, reading, units, false), amount(spread, pair.to, reading, units, true));
}

/// Those that may be at one end: one, a few, or so many that they are better counted.
QString someOf(const Spread& spread, bool RigMean::*may) {
  QStringList names;
  for (const RigMean& rig : spread.rigs) {
    if (rig.*may) names += QString::fromStdString(rig.rig);
  }
  constexpr qsizetype kNamed = 4;
  if (names.size() > kNamed) return QObject::tr("one of %1 rigs").arg(names.size());
  const QString last = names.takeLast();
  return names.isEmpty() ? last : QObject::tr("%1 or %2").arg(names.join(", "), last);
}

}  // namespace

QString signedNumber(double shown) {
  const double size = std::abs(shown);
  const QString digits = QString::number(size, 'f', size < 0.995 ? 2 : size < 9.95 ? 1 : 0);
  return (shown < 0.0 ? QString("−") : QString()) + digits;
}

ShownUnit differenceUnit(Scaling scaling, ReadingId reading, UnitSystem units) {
  if (scaling == Scaling::Difference) return shownUnit(reading, units);
  return {scaling == Scaling::Ratio ? 100.0 : 1.0, "%"};
}

QString spokenCameras(const CamerasAgree& cameras, ReadingId reading, UnitSystem units) {
  const Agreement& a = cameras.agreement;
  const ShownUnit unit = differenceUnit(a.byRatio ? Scaling::Ratio : Scaling::Difference, reading, units);
  const auto named = [](const std::string& camera) {
    return camera.empty() ? QObject::tr("the unnamed camera")
                          : QString::fromStdString(camera).toHtmlEscaped();
  };
  return QObject::tr(
             "<b>Two cameras:</b> %1 over %2 by %3 %4 in %5 passes that both filmed; one more would "
             "differ by %6 to %7 %4. %8 of %5 are as close as they claim to be.")
      .arg(named(cameras.first), named(cameras.second), signedNumber(a.mean * unit.factor), unit.unit)
      .arg(a.n)
      .arg(signedNumber(a.from * unit.factor), signedNumber(a.to * unit.factor))
      .arg(a.within);
}

QString spreadHeadline(const Spread& spread, ReadingId reading, UnitSystem units) {
  if (spread.rigs.size() < 2)
    return QObject::tr("Only one rig has this reading: there is nothing to compare it with yet.");
  if (spread.pairs.empty())
    return QObject::tr("Not compared yet: %1.").arg(QString::fromStdString(spread.whyNoPairs));
  const auto apart = [](const RigPair& p) { return p.apart; };
  if (std::none_of(spread.pairs.begin(), spread.pairs.end(), apart)) {
    double within = 0.0;
    for (const RigPair& pair : spread.pairs) within = std::max(within, pair.alikeWithin);
    return QObject::tr("Too close to call: no two rigs can be told apart. They differ by %1 at most.")
        .arg(amount(spread, within, reading, units, true));
  }
  QString most = someOf(spread, &RigMean::mayBeMost);
  const RigPair* next = pairOf(spread, 0, 1);
  if (!spread.rigs[1].mayBeMost && next != nullptr && next->apart)
    most += QObject::tr(" (%1 over %2)").arg(between(spread, *next, reading, units), nameIn(spread, 1));
  return QObject::tr("Highest: %1. Lowest: %2.").arg(most, someOf(spread, &RigMean::mayBeLeast));
}

QString spokenPair(const Spread& spread, const RigPair& pair, ReadingId reading, UnitSystem units) {
  const QString a = nameIn(spread, pair.a), b = nameIn(spread, pair.b);
  if (pair.apart) {
    const QString over = QObject::tr("%1 over %2 by %3").arg(a, b, between(spread, pair, reading, units));
    return pair.alike ? QObject::tr("%1, less than is worth having").arg(over) : over;
  }
  if (pair.alike)
    return QObject::tr("%1 and %2: alike, %3 apart at most")
        .arg(a, b, amount(spread, pair.alikeWithin, reading, units, true));
  const QString close = QObject::tr("%1 and %2: too close to call, %3 apart at most")
                            .arg(a, b, amount(spread, pair.alikeWithin, reading, units, true));
  if (!pair.morePasses) return close;
  return QObject::tr("%1; %2 of each would settle it")
      .arg(close, counted(*pair.morePasses, QObject::tr("more pass"), QObject::tr("more passes")));
}

QString shortDifference(const Spread& spread, const RigPair& pair, ReadingId reading, UnitSystem units) {
  return "+" + amount(spread, pair.difference, reading, units, spread.scaling != Scaling::Difference);
}

QStringList spreadInWords(const Spread& spread) {
  QStringList lines;
  std::map<std::size_t, QStringList> settled;  // by further passes
  QStringList hardly, alike;
  for (const RigPair& pair : spread.pairs) {
    const QString who = QObject::tr("%1 and %2").arg(nameIn(spread, pair.a), nameIn(spread, pair.b));
    if (pair.alike) {
      alike += who;
    } else if (pair.apart) {
      continue;
    } else if (pair.morePasses && *pair.morePasses <= kWorthFilming) {
      settled[*pair.morePasses] += who;
    } else {
      hardly += who;
    }
  }
  if (!alike.isEmpty())
    lines +=
        QObject::tr("<b>Alike,</b> by less than is worth having: %1.").arg(alike.join("; ").toHtmlEscaped());
  if (!settled.empty()) {
    const auto& [passes, who] = *settled.begin();
    lines += QObject::tr("<b>Film this first:</b> %1 of each would settle %2.")
                 .arg(counted(passes, QObject::tr("more pass"), QObject::tr("more passes")),
                      who.join("; ").toHtmlEscaped());
  }
  if (!hardly.isEmpty())
    lines += QObject::tr("<b>Not worth filming again:</b> %1. %2 more passes of each would not settle it.")
                 .arg(hardly.join("; ").toHtmlEscaped())
                 .arg(kWorthFilming);
  QStringList how;
  if (spread.adjusted.blocks) how += QObject::tr("blocks of the day");
  if (spread.adjusted.speed) how += QObject::tr("pull speed");
  if (spread.adjusted.hours) how += QObject::tr("the hour");
  if (!how.isEmpty()) lines += QObject::tr("<b>Taken out of the rigs:</b> %1.").arg(how.join(", "));
  if (spread.notByRatio)
    lines += QObject::tr("<b>By difference,</b> not by ratio: a value is not above 0, or is too unsure.");
  return lines;
}

}  // namespace fin::app
