// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/sheets.h"

#include <QFileInfo>
#include <QPageSize>
#include <QPdfWriter>
#include <QTextDocument>

#include "core/planning/cautions.h"

namespace fin::app {
namespace {

constexpr int kResolution_dpi = 150;
constexpr int kClipboard_pt = 10;
constexpr int kWall_pt = 14;

QString text(std::string_view words) {
  return QString::fromUtf8(words.data(), static_cast<qsizetype>(words.size()));
}

Result<void> print(const QString& html, const QString& title, const QString& file, int points) {
  // The writer says nothing of a place that cannot be written, so the file is tried first.
  QFile probe(file);
  if (!probe.open(QIODevice::WriteOnly)) {
    return failure(ErrorCode::NotWritable,
                   QObject::tr("%1 cannot be written: %2").arg(file, probe.errorString()).toStdString(),
                   file.toStdString());
  }
  probe.close();
  QPdfWriter writer(file);
  writer.setPageSize(QPageSize(QPageSize::A4));
  writer.setPageMargins(QMarginsF(14, 14, 14, 14), QPageLayout::Millimeter);
  writer.setResolution(kResolution_dpi);
  writer.setTitle(title);
  QTextDocument document;
  document.setDefaultFont(QFont("Inter", points));
  document.setDefaultStyleSheet(
      QString("body { font-family: Inter; font-size: %1pt; color: #1e262c; } h1 { font-size: %2pt; }"
              "h2 { font-size: %3pt; } td, th { padding: 4px 6px; } th { text-align: left; background: "
              "#efe8da; }")
          .arg(points)
          .arg(2 * points)
          .arg(points + 3));
  document.documentLayout()->setPaintDevice(&writer);
  // A page size of its own keeps the document from adding margins to those of the page.
  document.setPageSize(QSizeF(writer.width(), writer.height()));
  document.setDocumentMargin(0);
  document.setHtml(html);
  document.print(&writer);
  return {};
}

QString sheetRows(const DayDesk& desk) {
  QString rows;
  int n = 0;
  for (const PlannedPass& pass : desk.plan().sheet) {
    rows += QString(
                "<tr><td>%1</td><td>%2</td><td><b>%3</b></td><td>%4</td><td>%5</td><td>&#9744;</td>"
                "<td width='150'>%6</td></tr>")
                .arg(++n)
                .arg(pass.block)
                .arg(desk.titleOf(pass).toHtmlEscaped(), desk.taskOf(pass).toHtmlEscaped(),
                     pass.state == PassState::Planned ? QString() : text(toString(pass.state)),
                     QString::fromStdString(pass.note).toHtmlEscaped());
  }
  return rows;
}

}  // namespace

Result<void> printPassSheet(const DayDesk& desk, const QString& file) {
  const DayPlan& plan = desk.plan();
  const SheetTime time = timeFor(plan.sheet, plan.options);
  const QString name = plan.name.empty() ? QObject::tr("Pass sheet") : QString::fromStdString(plan.name);
  QString held;
  for (const HeldEqual& h : plan.heldEqual) {
    if (!h.value.empty())
      held += QString("%1: %2. ").arg(QString::fromStdString(h.what), QString::fromStdString(h.value));
  }
  const QString html =
      QString(
          "<h1>%1</h1><p>%2</p><p>%3</p><table border='1' cellspacing='0' "
          "width='100%'><tr><th>#</th><th>%4</th>"
          "<th>%5</th><th>%6</th><th></th><th>%7</th><th>%8</th></tr>%9</table>")
          .arg(name.toHtmlEscaped(),
               QObject::tr("%1 passes, about %2 minutes with %3 changes of rig. Order drawn from seed %4.")
                   .arg(plan.sheet.size())
                   .arg(time.minutes, 0, 'f', 0)
                   .arg(time.rigChanges)
                   .arg(plan.options.seed),
               held.toHtmlEscaped(), QObject::tr("Block"), QObject::tr("Rig"), QObject::tr("Pass"),
               QObject::tr("Done"), QObject::tr("Note"), sheetRows(desk));
  return print(html, name, file, kClipboard_pt);
}

Result<void> printCautions(const QString& file) {
  QString body = QObject::tr(
      "<h1>Before and at the water</h1><p>General advice. Local codes and licensed people come "
      "first.</p>");
  for (const Caution& c : cautions()) {
    body +=
        QString("<h2>%1</h2><p>%2</p>").arg(text(c.heading).toHtmlEscaped(), text(c.full).toHtmlEscaped());
  }
  return print(body, QObject::tr("Cautions"), file, kWall_pt);
}

CsvTable passSheetTable(const DayDesk& desk) {
  CsvTable table;
  table.heads = {"number",  "block",   "rig",   "protocol",   "view", "speed_mm_s",
                 "control", "attempt", "state", "why_fouled", "note"};
  int n = 0;
  for (const PlannedPass& p : desk.plan().sheet) {
    table.rows.push_back({std::to_string(++n), std::to_string(p.block), desk.titleOf(p).toStdString(),
                          std::string(toString(p.protocol)), std::string(toString(p.view)),
                          p.speed_mm_s ? QString::number(*p.speed_mm_s).toStdString() : std::string(),
                          p.control ? "yes" : "", std::to_string(p.attempt), std::string(toString(p.state)),
                          p.whyFouled, p.note});
  }
  return table;
}

}  // namespace fin::app
