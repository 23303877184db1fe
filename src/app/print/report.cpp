// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/report.h"

#include <qcustomplot.h>

#include <QBuffer>

#include "app/phrases/class_words.h"
#include "app/phrases/verdict_words.h"
#include "app/plots/plot.h"
#include "app/plots/spread_plot.h"
#include "core/comparison/speed_sets.h"
#include "core/planning/questions.h"
#include "core/readings/registry.h"

namespace fin::app {
namespace {

constexpr int kPlotWidth_px = 640;
constexpr int kLane_px = 46;
constexpr int kPlotEdge_px = 60;
constexpr int kStillWidth_px = 300;

QString escaped(const std::string& text) {
  return QString::fromStdString(text).toHtmlEscaped();
}

QString row(const QStringList& cells, const char* tag = "td") {
  QString out = "<tr>";
  for (const QString& cell : cells) out += QString("<%1>%2</%1>").arg(tag, cell);
  return out + "</tr>";
}

QString table(const QStringList& heads, const QString& rows) {
  return "<table border='1' cellspacing='0' cellpadding='4' width='98%'>" + row(heads, "th") + rows +
         "</table>";
}

QString paragraph(const QString& text) {
  return text.isEmpty() ? QString() : "<p>" + text.toHtmlEscaped() + "</p>";
}

QString list(const QStringList& lines) {
  if (lines.isEmpty()) return {};
  QString out = "<ul>";
  for (const QString& line : lines) out += "<li>" + line.toHtmlEscaped() + "</li>";
  return out + "</ul>";
}

QString picture(const QImage& image, int width_px, const QString& says) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  image.save(&buffer, "PNG");
  return QString("<img width='%1' alt='%2' src='data:image/png;base64,%3'/>")
      .arg(width_px)
      .arg(says.toHtmlEscaped().replace('\'', "&#39;"), QString::fromLatin1(bytes.toBase64()));
}

/// Writes one report; every part is a section of its page.
class Report {
 public:
  Report(const VerdictController& controller, UnitSystem units)
      : controller_(controller),
        units_(units),
        day_(controller.lineUp().day().plan()),
        table_(controller.tableBy(controller.wishes())),
        byPlaces_(found(table_, {})),
        byPoints_(found(table_, {.scoring = Scoring::Points})),
        byPrice_(found(table_, {.againstPrice = true})) {
    for (const Purpose& purpose : controller.plan().purposes) {
      purposes_.push_back({purpose.name, controller.tableBy(purpose.wishes), {}});
      purposes_.back().picks = found(purposes_.back().table, purposeOptions());
    }
  }

  /// All rankings are there.
  [[nodiscard]] bool whole() const { return whole_; }

  QString page(const std::vector<ReportStill>& stills) const {
    return head() + asked() + verdict() + purposes() + price() + together() + lineUp() + heldEqual() +
           readings() + spreads() + pictures(stills) + caveats() + interest() + origins() + "</body></html>";
  }

 private:
  struct PurposePick {
    std::string name;
    ScoreTable table;
    Ranking picks;
  };

  Ranking found(const ScoreTable& table, const RankOptions& options) {
    const Ranking* ranking = controller_.rankings().of(table, options);
    if (ranking == nullptr) whole_ = false;
    return ranking != nullptr ? *ranking : Ranking{};
  }

  enum class Page { GoesOn, New };
  static QString section(const QString& title, const QString& body, Page page = Page::GoesOn) {
    const QString style = page == Page::New ? " style='page-break-before: always'" : "";
    return body.isEmpty() ? QString() : "<h2" + style + ">" + title.toHtmlEscaped() + "</h2>" + body;
  }

  QString head() const {
    const QString name = day_.name.empty() ? QObject::tr("A day of testing") : escaped(day_.name);
    return "<!DOCTYPE html><html lang='en'><head><meta charset='utf-8'><title>" + name +
           "</title><style>body { font-family: Inter, sans-serif; max-width: 900px; margin: 24px auto; "
           "color: "
           "#1e262c; } table { border-collapse: collapse; font-size: 90%; } td, th { "
           "text-align: left; vertical-align: top; } th { background: #efe8da; } img { max-width: "
           "100%; }</style></head><body><h1>" +
           name + "</h1>";
  }

  QString asked() const {
    QStringList lines;
    for (const std::string& key : day_.questions) {
      if (const Question* q = questionNamed(key))
        lines += QString::fromUtf8(q->asked.data(), static_cast<qsizetype>(q->asked.size()));
    }
    return section(QObject::tr("What was asked"), list(lines));
  }

  QString ranking(const Ranking& ranking, const QString& total) const {
    QString rows;
    for (const Placing& p : ranking.placings) {
      rows += row({plainNumber(p.place, 1), escaped(table_.entries[p.entry].rig), plainNumber(p.total),
                   placesInWords(p), percent(p.first.byMeasuring), percent(p.first.byWeights),
                   percent(p.first.byBoth)});
    }
    if (rows.isEmpty()) return paragraph(firstInWords(table_, ranking) + ".");
    return "<p><b>" + firstInWords(table_, ranking).toHtmlEscaped() + ".</b> " +
           firmnessInWords(table_, ranking).toHtmlEscaped() + "</p>" +
           fin::app::table(
               {QObject::tr("Place"), QObject::tr("Rig"), total, QObject::tr("May be place"),
                QObject::tr("First place: measured"), QObject::tr("other weights"), QObject::tr("both")},
               rows);
  }

  QString counts() const {
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
    return parts.isEmpty() ? QString() : paragraph(QObject::tr("Scored by: %1.").arg(parts.join("; ")));
  }

  QString verdict() const {
    return section(QObject::tr("Verdict"), paragraph(QString::fromStdString(controller_.plan().conclusion)) +
                                               counts() + "<h3>" + QObject::tr("By places") + "</h3>" +
                                               ranking(byPlaces_, QObject::tr("Places added")) + "<h3>" +
                                               QObject::tr("By points") + "</h3>" +
                                               ranking(byPoints_, QObject::tr("Points of 10")) +
                                               list(leftInWords(table_, byPlaces_)));
  }

  QString purposes() const {
    QString rows;
    for (const auto& [name, table, picks] : purposes_) {
      if (picks.placings.empty()) continue;
      const Placing& first = picks.placings.front();
      rows += row({escaped(name), "<b>" + escaped(table.entries[first.entry].rig) + "</b>",
                   chanceInWords(table, first), reasonInWords(table, first, units_).toHtmlEscaped()});
    }
    if (rows.isEmpty()) return {};
    return section(QObject::tr("What each is for"),
                   fin::app::table({QObject::tr("For"), QObject::tr("Take"), QObject::tr("Chance"),
                                    QObject::tr("Because of")},
                                   rows) +
                       paragraph(QObject::tr("Purposes for which no two rigs were read are left out.")));
  }

  QString price() const {
    QString dated = QString::fromStdString(controller_.plan().pricesFrom);
    if (byPrice_.placings.empty()) return {};
    return section(QObject::tr("Against the price"),
                   ranking(byPrice_, QObject::tr("Places with price")) +
                       paragraph(dated.isEmpty() ? QObject::tr("When the prices were noted is not said.")
                                                 : QObject::tr("Prices: %1. They change.").arg(dated)));
  }

  QString together() const {
    QStringList lines;
    for (const SpeedSet& set : setsThatShare(bandsOf(controller_.lineUp().passes()))) {
      QStringList names;
      for (const std::string& rig : set.rigs) names += QString::fromStdString(rig);
      lines += QObject::tr("%1: %2 to %3.")
                   .arg(names.join(", "), spokenPull(set.from_mm_s, units_), spokenPull(set.to_mm_s, units_));
    }
    return section(QObject::tr("Which can be pulled together"), list(lines));
  }

  QString lineUp() const {
    const ShownUnit mm = shownUnit("mm", units_);
    const ShownUnit g = shownUnit("g", units_);
    const auto number = [](std::optional<double> v, const ShownUnit& unit) {
      return v ? QString("%1 %2").arg(*v * unit.factor, 0, 'f', unit.factor < 1.0 ? 2 : 1).arg(unit.unit)
               : QString();
    };
    QString rows;
    for (const Rig& rig : day_.rack.rigs) {
      const Model* model = day_.rack.model(rig.model);
      if (model == nullptr) continue;
      QStringList how;
      if (rig.head_g) how += QObject::tr("head %1").arg(number(rig.head_g, g));
      if (rig.hook_g) how += QObject::tr("hook %1").arg(number(rig.hook_g, g));
      if (!rig.line.empty()) how += escaped(rig.line);
      if (!rig.link.empty()) how += escaped(rig.link);
      rows += row({escaped(day_.rack.fullName(rig)), number(model->length_mm, mm), number(model->weight_g, g),
                   how.join(", "),
                   model->price ? QString("%1 %2").arg(*model->price, 0, 'f', 2).arg(escaped(model->currency))
                                : QString(),
                   model->graded ? QObject::tr("graded") : QObject::tr("shown only")});
    }
    if (rows.isEmpty()) return {};
    return section(QObject::tr("The line-up"),
                   fin::app::table({QObject::tr("Rig"), QObject::tr("Length"), QObject::tr("Weight"),
                                    QObject::tr("Rigged with"), QObject::tr("Price"), QString()},
                                   rows));
  }

  QString heldEqual() const {
    QStringList lines;
    for (const HeldEqual& held : day_.heldEqual) {
      if (held.value.empty() && held.exception.empty()) continue;
      QString line = QString::fromStdString(held.what) + ": " +
                     (held.value.empty() ? QObject::tr("not said") : QString::fromStdString(held.value));
      if (!held.exception.empty())
        line += QObject::tr("; except: %1").arg(QString::fromStdString(held.exception));
      lines += line;
    }
    lines += QObject::tr("The water as entered: %1, %2 g/kg salt.")
                 .arg(spokenAmount(day_.water.temperature_C, "°C", 1, units_),
                      plainNumber(day_.water.salinity_g_kg, 1));
    return section(QObject::tr("Held equal"), list(lines));
  }

  /// By rig, every reading that a rig has, whether it is scored by or not.
  QString readings() const {
    const auto& passes = controller_.lineUp().passes();
    QString rows;
    for (const ReadingId reading : readingsAmong(passes)) {
      const auto speed = commonSpeed(passes, reading);
      QString name = "<b>" + spokenName(reading).toHtmlEscaped() + "</b>";
      for (const RigMean& rig : compare(valuesOf(passes, reading, speed), reading).rigs) {
        rows += row({name, escaped(rig.rig), spokenAs(reading, rig.mean, rig.u95(), units_),
                     QString::number(rig.passes), QString::fromStdString(rig.letters)});
        name.clear();
      }
    }
    rows += classes();
    if (rows.isEmpty()) return {};
    return section(QObject::tr("Readings"),
                   paragraph(QObject::tr(
                       "Means over the passes with the half-width of their 95 % interval; pulls at the "
                       "speed at which most rigs were pulled. What is read in words: the commonest, with "
                       "the 95 % interval of its share. Rigs that share a letter cannot be told apart; "
                       "no letter: not compared.")) +
                       fin::app::table({QObject::tr("Reading"), QObject::tr("Rig"), QObject::tr("Value"),
                                        QObject::tr("Passes"), QString()},
                                       rows),
                   Page::New);
  }

  /// Rows of what was read in words.
  QString classes() const {
    const auto& passes = controller_.lineUp().passes();
    QString rows;
    for (const ReadingId reading : readingsAmong(passes, ReadAs::Class)) {
      QString name = "<b>" + spokenName(reading).toHtmlEscaped() + "</b>";
      for (const RigClasses& rig : compareClasses(passes, reading).rigs) {
        rows += row({name, escaped(rig.rig), spokenClasses(rig).toHtmlEscaped(), QString::number(rig.passes),
                     QString::fromStdString(rig.letters)});
        name.clear();
      }
    }
    return rows;
  }

  /// Which file, which frames, by which method and when: for whoever wants to check.
  QString origins() const {
    QString rows;
    for (const ComparedPass& pass : controller_.lineUp().passes()) {
      if (!pass.from) continue;
      const Provenance& from = *pass.from;
      rows += row({escaped(pass.title), escaped(from.clip.filename().string()),
                   QString("%1–%2").arg(from.firstFrame).arg(from.lastFrame()),
                   QString::number(from.frames.followed), QString::number(from.methodVersion),
                   from.madeAt_s > 0.0 ? spokenMoment(from.madeAt_s) : QObject::tr("not known")});
    }
    if (rows.isEmpty()) return {};
    return section(QObject::tr("Where the numbers come from"),
                   fin::app::table({QObject::tr("Pass"), QObject::tr("Clip"), QObject::tr("Frames"),
                                    QObject::tr("Followed"), QObject::tr("Method"), QObject::tr("Measured")},
                                   rows));
  }

  QString spreads() const {
    QString body;
    const auto& passes = controller_.lineUp().passes();
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      if (!table_.wishes[w].judged.empty()) continue;
      const ReadingId reading = table_.wishes[w].reading;
      const auto rigs = valuesOf(passes, reading, table_.speeds_mm_s[w]);
      if (rigs.empty()) continue;
      const std::unique_ptr<QCustomPlot> plot(dressedPlot("reportPlot"));
      const QString name = spokenName(reading);
      plot->yAxis->grid()->setVisible(false);
      plot->resize(kPlotWidth_px, kPlotEdge_px + kLane_px * static_cast<int>(rigs.size()));
      drawSpread(*plot, compare(rigs, reading), rigs, name, shownUnit(reading, units_));
      body += "<p>" + picture(plot->toPixmap(0, 0, 2.0).toImage(), kPlotWidth_px, name) + "</p>";
    }
    return section(QObject::tr("Spreads: passes as rings, means with their interval"), body);
  }

  static QString pictures(const std::vector<ReportStill>& stills) {
    QString rows;
    QStringList cells;
    for (const ReportStill& still : stills) {
      cells += (still.picture.isNull() ? QString()
                                       : picture(still.picture, kStillWidth_px, still.caption) + "<br>") +
               still.caption.toHtmlEscaped();
      if (cells.size() < 2) continue;
      rows += row(cells);
      cells.clear();
    }
    if (!cells.isEmpty()) rows += row(cells);
    return section(
        QObject::tr("From the footage"),
        rows.isEmpty() ? QString() : "<table cellspacing='0' cellpadding='4'>" + rows + "</table>");
  }

  QString caveats() const {
    QStringList lines;
    const LineUp& lineUp = controller_.lineUp();
    if (lineUp.fouled() > 0)
      lines += QObject::tr("%1 left out.")
                   .arg(counted(lineUp.fouled(), QObject::tr("fouled pass"), QObject::tr("fouled passes")));
    QStringList unequal;
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      if (!table_.wishes[w].judged.empty()) continue;
      for (const QString& difference :
           lineUp.differencesFor(table_.wishes[w].reading, table_.speeds_mm_s[w])) {
        if (!unequal.contains(difference)) unequal += difference;
      }
    }
    lines += unequal;
    QStringList once;
    for (std::size_t w = 0; w < table_.wishes.size(); ++w) {
      for (std::size_t e = 0; e < table_.entries.size(); ++e) {
        const QString rig = QString::fromStdString(table_.entries[e].rig);
        if (table_.cells[w][e] && table_.cells[w][e]->passes == 1 && !once.contains(rig)) once += rig;
      }
    }
    if (!once.isEmpty())
      lines += QObject::tr("One pass only of something scored: %1. How they vary is taken from the others.")
                   .arg(once.join(", "));
    lines += QObject::tr("Not every model was tested, prices change, and one tank is not a lake.");
    return section(QObject::tr("Caveats"), list(lines));
  }

  QString interest() const {
    QString body = controller_.plan().interest.empty() ? QObject::tr("None was declared.")
                                                       : QString::fromStdString(controller_.plan().interest);
    return section(QObject::tr("Interest of the testers"), paragraph(body));
  }

  const VerdictController& controller_;
  UnitSystem units_;
  const DayPlan& day_;
  ScoreTable table_;
  bool whole_ = true;  // before what may set it
  Ranking byPlaces_;
  Ranking byPoints_;
  Ranking byPrice_;
  std::vector<PurposePick> purposes_;
};

}  // namespace

QString reportPage(const VerdictController& controller, const std::vector<ReportStill>& stills,
                   UnitSystem units) {
  const Report report(controller, units);
  return report.whole() ? report.page(stills) : QString();
}

}  // namespace fin::app
