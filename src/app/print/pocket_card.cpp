// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/pocket_card.h"

#include "app/phrases/water_words.h"
#include "app/print/writing.h"

namespace fin::app {
namespace {

constexpr int kPocket_pt = 9;
constexpr std::size_t kMostLines = 8;

QString onCard(const std::string& text) {
  return QString::fromStdString(text).toHtmlEscaped();
}

QString tiersOn(const PocketCard& card) {
  if (card.tiers.empty()) return QString("<p>%1.</p>").arg(asSentence(onCard(card.noTiers)));
  QString rows;
  int n = 0;
  for (const PocketCard::CardTier& tier : card.tiers) {
    QStringList rigs;
    for (const std::string& rig : tier.rigs) rigs += onCard(rig);
    rows += QString("<p><b>%1&nbsp; %2</b>%3<br>%4</p>")
                .arg(++n)
                .arg(rigs.join(QObject::tr(" and ")), tier.heard ? QObject::tr(" (heard)") : QString(),
                     inAllSpeeds(tier.middle_mm_s));
  }
  return rows;
}

QString countdownsOn(const PocketCard& card) {
  if (card.countdowns.empty()) return {};
  QString head = QString("<tr><th align='left'>%1</th>").arg(QObject::tr("Count down"));
  for (const double depth : card.depths_m) head += QString("<th>%1 m</th>").arg(depth);
  QString rows;
  for (std::size_t i = 0; i < card.countdowns.size() && i < kMostLines; ++i) {
    rows += QString("<tr><td>%1</td>").arg(onCard(card.countdowns[i].rig));
    for (const double seconds : card.countdowns[i].seconds)
      rows += QString("<td align='center'>%1 s</td>").arg(seconds, 0, 'f', seconds < 10.0 ? 1 : 0);
    rows += "</tr>";
  }
  return QString("<table width='100%' cellspacing='0'>%1</tr>%2</table>").arg(head, rows);
}

QString depthsOn(const PocketCard& card) {
  QStringList lines;
  for (std::size_t i = 0; i < card.depths.size() && i < kMostLines; ++i) {
    lines += QObject::tr("%1: %2 m of line, %3 m deep")
                 .arg(onCard(card.depths[i].rig))
                 .arg(card.depths[i].line_mm / 1000.0, 0, 'f', 0)
                 .arg(card.depths[i].depth_mm / 1000.0, 0, 'f', 1);
  }
  return lines.isEmpty() ? QString() : QString("<p>%1</p>").arg(lines.join("<br>"));
}

}  // namespace

Result<void> printPocketCard(const PocketCard& card, const QString& title, const QString& file) {
  const Cadence& beat = card.cadence;
  const QString cadence = QObject::tr("Cadence: %1, %2 s apart, then %3 s of pause.")
                              .arg(counted(static_cast<std::size_t>(std::max(0, beat.twitches)),
                                           QObject::tr("twitch"), QObject::tr("twitches")))
                              .arg(beat.between.value())
                              .arg(beat.pause.value());
  const QString html =
      QString("<h3>%1</h3>%2%3%4<p>%5</p>")
          .arg(title.toHtmlEscaped(), tiersOn(card), countdownsOn(card), depthsOn(card), cadence);
  return printHtml(html, title, file, {.points = kPocket_pt, .paper = Paper::A6});
}

}  // namespace fin::app
