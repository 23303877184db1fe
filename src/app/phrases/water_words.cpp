// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/phrases/water_words.h"

#include <QDateTime>
#include <QObject>
#include <array>
#include <cmath>

#include "core/water/current.h"

namespace fin::app {
namespace {

constexpr double kLevel = 0.05;

QString number(double value, int decimals) {
  return QString::number(value, 'f', decimals).replace('-', QChar(0x2212));
}

QString number(double value) {
  return QString::number(value, 'g', 4).replace('-', QChar(0x2212));
}

QString spokenProperty(const TieWish& wish) {
  switch (wish.of) {
    case TieWish::Of::Length:
      return QObject::tr("Length");
    case TieWish::Of::DaysUnseen:
      return QObject::tr("Days unseen here");
    case TieWish::Of::Finish:
      return QObject::tr("Finish");
    case TieWish::Of::Reading:
      break;
  }
  return spokenName(wish.reading);
}

}  // namespace

QString spokenName(Condition what) {
  const std::array kNames{QObject::tr("Water at the surface"),
                          QObject::tr("Water at the lure"),
                          QObject::tr("Change in three days"),
                          QObject::tr("Salt"),
                          QObject::tr("Clarity"),
                          QObject::tr("Wind"),
                          QObject::tr("Wind from"),
                          QObject::tr("Light"),
                          QObject::tr("Cloud"),
                          QObject::tr("Current"),
                          QObject::tr("Current to"),
                          QObject::tr("Tide"),
                          QObject::tr("From high water"),
                          QObject::tr("Depth"),
                          QObject::tr("Bottom"),
                          QObject::tr("Cover"),
                          QObject::tr("Prey"),
                          QObject::tr("Prey known by"),
                          QObject::tr("Prey at the surface"),
                          QObject::tr("Where the fish are"),
                          QObject::tr("Fish"),
                          QObject::tr("Much fished"),
                          QObject::tr("Pulled"),
                          QObject::tr("Place"),
                          QObject::tr("Hemisphere")};
  return kNames[static_cast<std::size_t>(what)];
}

QString helpFor(Condition what) {
  switch (what) {
    case Condition::Clarity:
      return QObject::tr(
          "Let a white disc, 30 cm across, down until it is gone, and up until it is seen: the mean.");
    case Condition::Wind:
      return QObject::tr("In m/s, or by the look of the water.");
    case Condition::Current:
      return QObject::tr("Time a float over 5 m: 5 over the seconds.");
    case Condition::Cloud:
      return QObject::tr("Eighths of the sky.");
    case Condition::PreyLength:
      return QObject::tr("Length of what the fish eat.");
    default:
      return {};
  }
}

QString spokenLine(const ConditionLine& line, UnitSystem units) {
  if (line.unknown()) return QObject::tr("unknown");
  if (!line.number) return QString::fromStdString(line.word);
  const ConditionSpec& spec = specOf(line.what);
  const ShownUnit unit = shownUnit(spec.unit, units);
  return QString("%1 %2").arg(number(unit.shown(*line.number)), unit.unit).trimmed();
}

QString spokenWater(const WaterNow& water, UnitSystem units) {
  QStringList out;
  for (const ConditionSpec& spec : conditionSpecs()) {
    const ConditionLine* line = water.line(spec.what);
    if (line == nullptr || line->unknown() || spec.what == Condition::Hemisphere) continue;
    const QString said = spokenLine(*line, units);
    switch (spec.what) {
      case Condition::SurfaceTemperature:
      case Condition::Light:
        out += said;
        break;
      case Condition::Wind:
        out += line->number ? QObject::tr("wind %1").arg(said) : said;
        break;
      case Condition::Clarity:
        out += QObject::tr("disc %1").arg(said);
        break;
      case Condition::TemperatureChange:
        out += QObject::tr("%1 in three days").arg(said);
        break;
      case Condition::FishDepth:
        out += QObject::tr("fish at the %1").arg(said == "low" ? QObject::tr("bottom") : said);
        break;
      case Condition::MuchFished:
        if (said == "yes") out += QObject::tr("much fished");
        break;
      case Condition::PreyAtSurface:
        if (said == "yes") out += QObject::tr("prey at the surface");
        break;
      default:
        out += QString("%1 %2").arg(spokenName(spec.what).toLower(), said);
    }
  }
  return out.join(QString::fromUtf8("  ·  "));
}

QString spokenName(RunEventKind kind) {
  switch (kind) {
    case RunEventKind::Caught:
      return QObject::tr("fish");
    case RunEventKind::Missed:
      return QObject::tr("miss");
    case RunEventKind::Followed:
      return QObject::tr("follow");
    case RunEventKind::Fouled:
      return QObject::tr("foul");
    case RunEventKind::Lost:
      return QObject::tr("lure lost");
    case RunEventKind::Tie:
      return QObject::tr("tied on");
    case RunEventKind::Fish:
      return QObject::tr("in the water");
    case RunEventKind::Rest:
      return QObject::tr("taken in");
    case RunEventKind::Tier:
      return QObject::tr("tier");
    case RunEventKind::Gap:
      break;
  }
  return QObject::tr("gap");
}

QString spokenEvent(const RunEvent& event) {
  QString out = QString("%1   %2").arg(spokenClock(event.at_s), spokenName(event.kind));
  if (event.kind == RunEventKind::Tier) return out + QString(" %1").arg(event.tier);
  return event.kind == RunEventKind::Gap ? out : out + QObject::tr(", rod %1").arg(event.rod);
}

QString spokenClock(double at_s) {
  return QDateTime::fromMSecsSinceEpoch(static_cast<qint64>(at_s * 1000.0)).toString("HH:mm");
}

QString spokenSide(SchoolSide side) {
  const std::array kSides{QObject::tr("as the water says"),
                          QObject::tr("size by speed"),
                          QObject::tr("size by prey"),
                          QObject::tr("steady"),
                          QObject::tr("hunting"),
                          QObject::tr("loud"),
                          QObject::tr("quiet"),
                          QObject::tr("straight down"),
                          QObject::tr("gliding"),
                          QObject::tr("bright"),
                          QObject::tr("dull"),
                          QObject::tr("search"),
                          QObject::tr("finesse")};
  return kSides[static_cast<std::size_t>(side)];
}

QString spokenWish(const TieWish& wish, UnitSystem units) {
  if (wish.of == TieWish::Of::Finish)
    return wish.bright ? QObject::tr("Finish, bright") : QObject::tr("Finish, dull");
  const QString property = spokenProperty(wish);
  switch (wish.direction) {
    case Direction::More:
      return QObject::tr("%1, the more the better").arg(property);
    case Direction::Less:
      return QObject::tr("%1, the less the better").arg(property);
    case Direction::Target:
      break;
  }
  if (wish.of == TieWish::Of::Length)
    return QObject::tr("%1 near %2").arg(property, spokenAmount(wish.target, "mm", 0, units));
  const ShownUnit unit = shownUnit(wish.reading, units);
  return QObject::tr("%1 near %2 %3").arg(property).arg(unit.shown(wish.target)).arg(unit.unit).trimmed();
}

QStringList reasonsFor(const TieOn& result, const TieChoice& choice, const std::vector<TieRule>& rules,
                       UnitSystem units) {
  QStringList out;
  for (std::size_t w = 0; w < result.wishes.size(); ++w) {
    const QString what = spokenWish(result.wishes[w].wish, units);
    const QString because = QString::fromStdString(rules[result.wishes[w].rule].because);
    out += choice.points[w]
               ? QObject::tr("%1 (%2): %3 points").arg(what, because).arg(number(*choice.points[w], 1))
               : QObject::tr("%1 (%2): not known").arg(what, because);
  }
  return out;
}

QString spokenPoints(const TieChoice& choice) {
  if (choice.ceiling - choice.floor < 0.05) return number(choice.floor, 1);
  return QObject::tr("%1 to %2").arg(number(choice.floor, 1), number(choice.ceiling, 1));
}

QString spokenRate(const Rate& rate) {
  return QObject::tr("%1 (%2 to %3)").arg(number(rate.value, 2), number(rate.from, 2), number(rate.to, 2));
}

QString spokenRatio(const RateRatio& ratio) {
  const QString to = std::isfinite(ratio.to) ? number(ratio.to, 1) : QObject::tr("any number");
  const QString p = QObject::tr("p %1").arg(number(ratio.p, 3));
  if (!std::isfinite(ratio.ratio))
    return QObject::tr("%1 times as many at the least, %2").arg(number(ratio.from, 1), p);
  return QObject::tr("%1 times as many (%2 to %3), %4")
      .arg(number(ratio.ratio, 1), number(ratio.from, 1), to, p);
}

QString spokenPair(const CatchReport& report, const RigsByCatch& pair) {
  const QString a = QString::fromStdString(report.rigs[pair.a].rig);
  const QString b = QString::fromStdString(report.rigs[pair.b].rig);
  QStringList out;
  const QString call = pair.p < kLevel ? QObject::tr("%1 catches more than %2.").arg(a, b)
                                       : QObject::tr("%1 and %2: too close to call.").arg(a, b);
  out += call;
  if (pair.inBlocks)
    out += QObject::tr("Within %1 of place and hour that both fished: %2.")
               .arg(counted(pair.blocks, QObject::tr("stretch"), QObject::tr("stretches")),
                    spokenRatio(*pair.inBlocks));
  out +=
      (pair.inBlocks
           ? QObject::tr("Over all hours: %1; place and hour are in that.")
           : QObject::tr("Over all hours: %1. They were not fished side by side: it may be place and hour."))
          .arg(spokenRatio(pair.whole));
  if (pair.p >= kLevel)
    out += pair.toTell
               ? QObject::tr("If they are as they look, %1 hours of each would tell.").arg(pair.toTell->each)
               : QObject::tr("They look so much alike that no season would tell.");
  return out.join(" ");
}

QString spokenHow(ShrunkRates::How how) {
  switch (how) {
    case ShrunkRates::How::Fitted:
      return QObject::tr(
          "Given the spread: each rig is drawn in towards the others by how much they scatter.");
    case ShrunkRates::How::FewRigs:
      return QObject::tr("Under five rigs the spread cannot be told: each is drawn in by one fish.");
    case ShrunkRates::How::NoSpread:
      return QObject::tr("The rigs scatter no more than chance does: all have one rate.");
    case ShrunkRates::How::Raw:
      break;
  }
  return QObject::tr("Nothing was caught yet.");
}

QString inAllSpeeds(double mm_s) {
  return QObject::tr("%1 km/h · %2 mph · %3 kn · %4 mm/s")
      .arg(number(mm_s * kKilometresPerHour, 1), number(mm_s * kMilesPerHour, 1), number(mm_s * kKnots, 2),
           number(mm_s, 0));
}

}  // namespace fin::app
