// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/report.h"

#include <qcustomplot.h>

#include <set>

#include "app/phrases/class_words.h"
#include "app/phrases/publish_words.h"
#include "app/phrases/spread_words.h"
#include "app/phrases/verdict_words.h"
#include "app/plots/order_plot.h"
#include "app/plots/plot.h"
#include "app/plots/spread_plot.h"
#include "app/print/report_parts.h"
#include "app/ui/theme.h"
#include "core/planning/questions.h"
#include "core/readings/registry.h"

namespace fin::app {
namespace {

constexpr int kPlotWidth_px = 680;
constexpr int kPlotEdge_px = 60;
constexpr int kLane_px = 40;
constexpr int kTallest_px = 900;        ///< of a plot on a page
constexpr std::size_t kMostLanes = 24;  ///< in one plot; the appendix has all
constexpr std::size_t kCardReadings = 6;
constexpr std::size_t kMostDifferences = 3;

QString said(const std::string& text) {
  return QString::fromStdString(text);
}

int heightFor(std::size_t lanes) {
  return kPlotEdge_px + std::min(kTallest_px, kLane_px * static_cast<int>(lanes));
}

/// On white, whatever the window wears.
QImage pictureOf(QCustomPlot& plot, std::size_t lanes) {
  plot.resize(kPlotWidth_px, heightFor(lanes));
  if (&theme() != &lightTheme()) dyePlots(plot, theme(), lightTheme());
  plot.replot();
  return plot.toPixmap(0, 0, 2.0).toImage();
}

/// Gathers one report; every part is a piece of it.
class Gathering {
 public:
  Gathering(const VerdictController& controller, UnitSystem units)
      : controller_(controller),
        units_(units),
        day_(controller.lineUp().day().plan()),
        passes_(controller.lineUp().passes()),
        table_(controller.tableBy(controller.wishes())),
        byPlaces_(found(table_, {})),
        byPoints_(found(table_, {.scoring = Scoring::Points})),
        byPrice_(found(table_, {.againstPrice = true})) {
    for (const Purpose& purpose : controller.plan().purposes) {
      purposes_.push_back({said(purpose.name), controller.tableBy(purpose.wishes), {}});
      purposes_.back().picks = found(purposes_.back().table, purposeOptions());
    }
  }

  /// All rankings are there.
  [[nodiscard]] bool whole() const { return whole_; }

  [[nodiscard]] Report report(const std::map<QString, QImage>& pictures) const {
    Report out;
    out.title = day_.name.empty() ? QObject::tr("A day of testing") : said(day_.name);
    for (const std::string& key : day_.questions) {
      if (const Question* q = questionNamed(key))
        out.asked += QString::fromUtf8(q->asked.data(), static_cast<qsizetype>(q->asked.size()));
    }
    out.answer = firstInWords(table_, byPlaces_) + ".";
    out.firmness = firmnessInWords(table_, byPlaces_);
    out.ownWords = said(controller_.plan().conclusion);
    out.order = order();
    out.purposes = purposes();
    out.rigs = rigs(pictures);
    out.comparisons = comparisons();
    out.vote = vote();
    out.methods = methods();
    out.appendix = {scores(QObject::tr("Scored by places"), byPlaces_, QObject::tr("Places added")),
                    scores(QObject::tr("Scored by points"), byPoints_, QObject::tr("Points of 10")),
                    scores(QObject::tr("Against the price"), byPrice_, QObject::tr("Places with price")),
                    readings(), originsOf(passes_)};
    return out;
  }

 private:
  struct PurposePick {
    QString name;
    ScoreTable table;
    Ranking picks;
  };

  Ranking found(const ScoreTable& table, const RankOptions& options) {
    const Ranking* ranking = controller_.rankings().of(table, options);
    if (ranking == nullptr) whole_ = false;
    return ranking != nullptr ? *ranking : Ranking{};
  }

  ReportPlot order() const {
    if (byPlaces_.placings.empty()) return {};
    const std::unique_ptr<QCustomPlot> plot(dressedPlot("reportOrder"));
    drawOrder(*plot, table_, byPlaces_, kMostLanes);
    const std::size_t all = byPlaces_.placings.size();
    QString says = QObject::tr(
        "A bar holds the places that a rig may have, as far as the measuring tells; the ring is their mean.");
    if (all > kMostLanes)
      says += " " + QObject::tr("The first %1 of %2; the appendix has all.").arg(kMostLanes).arg(all);
    return {QObject::tr("The order"), says, pictureOf(*plot, std::min(all, kMostLanes))};
  }

  ReportTable purposes() const {
    ReportTable out{
        {QObject::tr("For"), QObject::tr("Take"), QObject::tr("Chance"), QObject::tr("Because of")}, {}};
    for (const auto& [name, table, picks] : purposes_) {
      if (picks.placings.empty()) continue;
      const Placing& first = picks.placings.front();
      out.rows.push_back({name, said(table.entries[first.entry].rig), chanceInWords(table, first),
                          reasonInWords(table, first, units_)});
    }
    return out;
  }

  std::vector<ReportRig> rigs(const std::map<QString, QImage>& pictures) const {
    std::vector<ReportRig> out;
    const auto add = [&](const Entry& entry) {
      ReportRig rig{.name = said(entry.rig), .graded = entry.graded, .standing = standing(entry)};
      tellPurposes(rig, entry.rig);
      rig.readings = cardReadings(entry.rig);
      describeRig(rig, day_, said(controller_.plan().pricesFrom), units_);
      rig.againstControl = againstControl(entry.rig);
      if (const auto picture = pictures.find(rig.name); picture != pictures.end())
        rig.picture = picture->second;
      out.push_back(std::move(rig));
    };
    std::set<std::size_t> told;
    for (const Placing& placing : byPlaces_.placings) {
      add(table_.entries[placing.entry]);
      told.insert(placing.entry);
    }
    for (std::size_t e = 0; e < table_.entries.size(); ++e) {
      if (!told.contains(e)) add(table_.entries[e]);
    }
    return out;
  }

  void tellPurposes(ReportRig& to, const std::string& rig) const {
    double best = 1e9;
    for (const auto& [name, table, picks] : purposes_) {
      for (const Placing& placing : picks.placings) {
        if (table.entries[placing.entry].rig != rig) continue;
        if (&placing == &picks.placings.front()) {
          to.goodFor += QString("%1 (%2)").arg(name, chanceInWords(table, placing));
        } else if (placing.place <= best) {
          if (placing.place < best) to.nearlyFor.clear();
          best = placing.place;
          to.nearlyFor += QObject::tr("%1 (place %2 of %3)")
                              .arg(name, plainNumber(placing.place, 1))
                              .arg(picks.placings.size());
        }
      }
    }
  }

  QString standing(const Entry& entry) const {
    if (!entry.graded) {
      const QString why = said(entry.whyNotGraded);
      return why.isEmpty() ? gradedNote(entry) : QString("%1: %2").arg(gradedNote(entry), why);
    }
    for (const Placing& placing : byPlaces_.placings) {
      if (table_.entries[placing.entry].rig != entry.rig) continue;
      return QObject::tr("Place %1 of %2; it may be place %3. First: %4.")
          .arg(plainNumber(placing.place, 1))
          .arg(byPlaces_.placings.size())
          .arg(placesInWords(placing), chanceInWords(table_, placing));
    }
    return QObject::tr("Not ranked: it lacks some of what is scored.");
  }

  /// What it is scored by first, the rest in the protocols' order.
  std::vector<ReportReading> cardReadings(const std::string& rig) const {
    std::vector<ReportReading> out;
    std::set<ReadingId> told;
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      for (std::size_t e = 0; e < table_.entries.size(); ++e) {
        const auto& cell = table_.cells[w][e];
        if (table_.entries[e].rig != rig || !cell || out.size() >= kCardReadings) continue;
        const Wish& wish = table_.wishes[w];
        if (wish.judged.empty()) told.insert(wish.reading);
        out.push_back(
            {spokenWish(wish), wish.className.empty()
                                   ? spokenValue(wish, *cell, units_)
                                   : QObject::tr("%1 of its passes").arg(percent(0.01 * cell->value))});
      }
    }
    for (const ReadingId reading : readingsAmong(passes_)) {
      if (out.size() >= kCardReadings) break;
      if (!told.insert(reading).second) continue;
      for (const RigMean& mean : meansOf(reading).rigs) {
        if (mean.rig == rig)
          out.push_back({spokenName(reading), spokenAs(reading, mean.mean, mean.u95(), units_)});
      }
    }
    return out;
  }

  /// Worked out once: with many rigs it takes its time.
  [[nodiscard]] const Spread& meansOf(ReadingId reading) const {
    const auto known = spreads_.find(reading);
    if (known != spreads_.end()) return known->second;
    return spreads_
        .emplace(reading, compare(valuesOf(passes_, reading, commonSpeed(passes_, reading)), reading))
        .first->second;
  }

  QStringList againstControl(const std::string& rig) const {
    QStringList out;
    const auto control =
        std::find_if(passes_.begin(), passes_.end(), [](const ComparedPass& p) { return p.control; });
    if (control == passes_.end() || control->rig == rig) return out;
    for (const Wish& wish : table_.wishes) {
      if (!wish.judged.empty() || !wish.className.empty() ||
          static_cast<std::size_t>(out.size()) >= kMostDifferences)
        continue;
      const Spread& spread = meansOf(wish.reading);
      for (const RigPair& pair : spread.pairs) {
        const std::string &a = spread.rigs[pair.a].rig, &b = spread.rigs[pair.b].rig;
        if ((a == rig && b == control->rig) || (b == rig && a == control->rig))
          out += QString("%1: %2.").arg(spokenName(wish.reading),
                                        spokenPair(spread, pair, wish.reading, units_));
      }
    }
    return out;
  }

  std::vector<ReportPlot> comparisons() const {
    std::vector<ReportPlot> out;
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      const Wish& wish = table_.wishes[w];
      if (!wish.judged.empty() || isClass(wish.reading)) continue;
      const auto values = valuesOf(passes_, wish.reading, table_.speeds_mm_s[w]);
      if (values.empty()) continue;
      Spread spread = compare(values, wish.reading);
      QString says = spreadHeadline(spread, wish.reading, units_);
      if (table_.speeds_mm_s[w])
        says += " " + QObject::tr("Pulled at about %1.").arg(spokenPull(*table_.speeds_mm_s[w], units_));
      if (spread.rigs.size() > kMostLanes) {
        says += " " + QObject::tr("The highest %1 of %2; the appendix has all.")
                          .arg(kMostLanes)
                          .arg(spread.rigs.size());
        spread.rigs.resize(kMostLanes);
      }
      const std::unique_ptr<QCustomPlot> plot(dressedPlot("reportPlot"));
      plot->yAxis->grid()->setVisible(false);
      const QString name = spokenName(wish.reading);
      drawSpread(*plot, spread, values, name, shownUnit(wish.reading, units_));
      out.push_back({name, says, pictureOf(*plot, spread.rigs.size())});
    }
    return out;
  }

  ReportSection vote() const {
    const Vote& vote = controller_.plan().vote;
    if (vote.ballots.empty()) return {};
    const VoteCount count = countVote(vote, ungradedAmong(table_.entries));
    ReportSection out{
        QObject::tr("What others said, who did not know the names"), voteInWords(vote, count), {}};
    out.table.heads = {QObject::tr("Rig"), QObject::tr("Preferred to a middling one"),
                       QObject::tr("Answers")};
    for (const Preferred& rig : count.rigs)
      out.table.rows.push_back({said(rig.rig), preferenceInWords(rig), QString::number(rig.answers)});
    return out;
  }

  std::vector<ReportSection> methods() const {
    return {{QObject::tr("How it was measured"), howMeasured(), {}},
            {QObject::tr("Held equal"), heldEqualOn(day_, units_), {}},
            {QObject::tr("What can be pulled together"), pulledTogether(passes_, units_), {}},
            {QObject::tr("What to keep in mind"), caveats(), {}}};
  }

  QStringList howMeasured() const {
    QStringList out{QObject::tr(
        "Every number was read from the footage, frame by frame. ± holds 95 of 100 such measurements: what "
        "passes "
        "scatter, the known length and placing the marks together. Of several passes the mean is shown.")};
    out += scoredBy();
    std::set<ReadingId> told;
    for (const Wish& wish : table_.wishes) {
      const ReadingSpec* spec = wish.judged.empty() ? specOf(wish.reading) : nullptr;
      if (spec == nullptr || !told.insert(wish.reading).second) continue;
      out += QString("%1 (%2): %3")
                 .arg(spokenName(wish.reading), fieldName(wish.reading),
                      QString::fromUtf8(spec->definition.data(),
                                        static_cast<qsizetype>(spec->definition.size())));
    }
    return out;
  }

  QString scoredBy() const {
    QStringList parts;
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      const Wish& wish = table_.wishes[w];
      const ShownUnit unit = shownUnit(wish.reading, units_);
      QString way = wish.direction == Direction::More ? QObject::tr("more is better")
                    : wish.direction == Direction::Less
                        ? QObject::tr("less is better")
                        : QObject::tr("best near %1 %2").arg(wish.target * unit.factor).arg(unit.unit);
      if (wish.weight != 1.0) way += QObject::tr(", weight %1").arg(plainNumber(wish.weight));
      if (table_.speeds_mm_s[w])
        way += QObject::tr(", pulled at about %1").arg(spokenPull(*table_.speeds_mm_s[w], units_));
      parts += QString("%1 (%2)").arg(spokenWish(wish), way);
    }
    return parts.isEmpty() ? QObject::tr("Nothing is scored.")
                           : QObject::tr("Scored by: %1.").arg(parts.join("; "));
  }

  QStringList caveats() const {
    const LineUp& lineUp = controller_.lineUp();
    QStringList lines = caveatsOf(controller_.plan(), table_.entries);
    for (const QString& left : leftInWords(table_, byPlaces_)) {
      if (!lines.contains(left)) lines += left;
    }
    if (lineUp.fouled() > 0)
      lines += QObject::tr("%1 left out.")
                   .arg(counted(lineUp.fouled(), QObject::tr("fouled pass"), QObject::tr("fouled passes")));
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      if (!table_.wishes[w].judged.empty()) continue;
      for (const QString& difference :
           lineUp.differencesFor(table_.wishes[w].reading, table_.speeds_mm_s[w])) {
        if (!lines.contains(difference)) lines += difference;
      }
    }
    QStringList once;
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      for (std::size_t e = 0; e < table_.entries.size(); ++e) {
        const QString rig = said(table_.entries[e].rig);
        if (table_.cells[w][e] && table_.cells[w][e]->passes == 1 && !once.contains(rig)) once += rig;
      }
    }
    if (!once.isEmpty())
      lines += QObject::tr("One pass only of something scored: %1. How they vary is taken from the others.")
                   .arg(once.join(", "));
    return lines;
  }

  ReportSection scores(const QString& title, const Ranking& ranking, const QString& total) const {
    ReportSection out{title, {}, {}};
    if (ranking.placings.empty()) return out;
    out.lines = {firstInWords(table_, ranking) + ". " + firmnessInWords(table_, ranking)};
    out.table.heads = {QObject::tr("Place"),
                       QObject::tr("Rig"),
                       total,
                       QObject::tr("May be place"),
                       QObject::tr("First place: measured"),
                       QObject::tr("other weights"),
                       QObject::tr("both")};
    for (const Placing& p : ranking.placings) {
      out.table.rows.push_back({plainNumber(p.place, 1), said(table_.entries[p.entry].rig),
                                plainNumber(p.total), placesInWords(p), percent(p.first.byMeasuring),
                                percent(p.first.byWeights), percent(p.first.byBoth)});
    }
    return out;
  }

  /// By reading, every rig that has it, whether it is scored by or not.
  ReportSection readings() const {
    ReportSection out{
        QObject::tr("All readings"),
        {QObject::tr(
            "Means over the passes with the half-width of their 95 % interval; pulls at the speed at "
            "which most rigs were pulled. What is read in words: the commonest, with the 95 % "
            "interval of its share. Rigs that share a letter cannot be told apart; no letter: not "
            "compared.")},
        {{QObject::tr("Reading"), QObject::tr("Rig"), QObject::tr("Value"), QObject::tr("Passes"),
          QObject::tr("Letters")},
         {}}};
    for (const ReadingId reading : readingsAmong(passes_)) {
      QString name = spokenName(reading);
      for (const RigMean& rig : meansOf(reading).rigs) {
        out.table.rows.push_back({name, said(rig.rig), spokenAs(reading, rig.mean, rig.u95(), units_),
                                  QString::number(rig.passes), said(rig.letters)});
        name.clear();
      }
    }
    for (const ReadingId reading : readingsAmong(passes_, ReadAs::Class)) {
      QString name = spokenName(reading);
      for (const RigClasses& rig : compareClasses(passes_, reading).rigs) {
        out.table.rows.push_back(
            {name, said(rig.rig), spokenClasses(rig), QString::number(rig.passes), said(rig.letters)});
        name.clear();
      }
    }
    return out;
  }

  const VerdictController& controller_;
  UnitSystem units_;
  const DayPlan& day_;
  const std::vector<ComparedPass>& passes_;
  ScoreTable table_;
  bool whole_ = true;  // before what may set it
  Ranking byPlaces_;
  Ranking byPoints_;
  Ranking byPrice_;
  std::vector<PurposePick> purposes_;
  mutable std::map<ReadingId, Spread> spreads_;
};

}  // namespace

std::optional<Report> reportOf(const VerdictController& controller, const std::map<QString, QImage>& pictures,
                               UnitSystem units) {
  const Gathering gathering(controller, units);
  if (!gathering.whole()) return std::nullopt;
  return gathering.report(pictures);
}

}  // namespace fin::app
