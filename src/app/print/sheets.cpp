// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/sheets.h"

#include <QFileInfo>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>

#include "app/print/writing.h"
#include "core/planning/cautions.h"

namespace fin::app {
namespace {

constexpr int kClipboard_pt = 10;
constexpr int kWall_pt = 14;

QString text(std::string_view words) {
  return QString::fromUtf8(words.data(), static_cast<qsizetype>(words.size()));
}

QString sheetRows(const DayController& controller) {
  QString rows;
  int n = 0;
  for (const PlannedPass& pass : controller.plan().sheet) {
    rows += QString(
                "<tr><td>%1</td><td>%2</td><td><b>%3</b></td><td>%4</td><td>%5</td><td>&#9744;</td>"
                "<td width='150'>%6</td></tr>")
                .arg(++n)
                .arg(pass.block)
                .arg(controller.titleOf(pass).toHtmlEscaped(), controller.taskOf(pass).toHtmlEscaped(),
                     pass.state == PassState::Planned ? QString() : text(toString(pass.state)),
                     QString::fromStdString(pass.note).toHtmlEscaped());
  }
  return rows;
}

constexpr double kEdge_mm = 12.0;
constexpr double kRule_mm = 100.0;
constexpr double kDotsPerInch = 1200.0;

QSizeF sizeOf(const LensBoard& board) {
  return board.field.value() * QSizeF(board.columns + 1, board.rows + 1);
}

/// The fields in the middle of the sheet, and below them a line to measure the print by.
void drawBoard(const LensBoard& board, const QPageSize& page, QPdfWriter& writer) {
  const double field = board.field.value();
  const QSizeF size_mm = sizeOf(board);
  writer.setPageSize(page);
  writer.setPageOrientation(QPageLayout::Landscape);
  writer.setPageMargins(QMarginsF(0, 0, 0, 0));
  writer.setResolution(static_cast<int>(kDotsPerInch));
  QPainter painter(&writer);
  const double dots = kDotsPerInch / 25.4;  // a millimetre
  const QSizeF paper = page.size(QPageSize::Millimeter).transposed();
  const QPointF corner((paper.width() - size_mm.width()) / 2.0,
                       (paper.height() - size_mm.height() - 10.0) / 2.0);
  for (int row = 0; row <= board.rows; ++row) {
    for (int column = row % 2; column <= board.columns; column += 2) {
      painter.fillRect(QRectF((corner + QPointF(column, row) * field) * dots, QSizeF(field, field) * dots),
                       Qt::black);
    }
  }
  painter.setPen(QPen(Qt::black, 0.3 * dots));
  const QPointF rule = corner + QPointF(0.0, size_mm.height() + 6.0);
  painter.drawLine(rule * dots, (rule + QPointF(kRule_mm, 0.0)) * dots);
  QFont font("Inter");
  font.setPixelSize(static_cast<int>(3.5 * dots));
  painter.setFont(font);
  painter.drawText((rule + QPointF(kRule_mm + 3.0, 1.2)) * dots,
                   QObject::tr("This line must measure %1 mm, a field %2 mm. Glue it flat on a stiff plate.")
                       .arg(kRule_mm)
                       .arg(field));
}

}  // namespace

Result<void> printPassSheet(const DayController& controller, const QString& file) {
  const DayPlan& plan = controller.plan();
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
               QObject::tr("%1 passes, about %2 minutes with %3 changes of rig. Shuffle number %4.")
                   .arg(plan.sheet.size())
                   .arg(time.minutes, 0, 'f', 0)
                   .arg(time.rigChanges)
                   .arg(plan.options.seed),
               held.toHtmlEscaped(), QObject::tr("Block"), QObject::tr("Rig"), QObject::tr("Pass"),
               QObject::tr("Done"), QObject::tr("Note"), sheetRows(controller));
  return printHtml(html, name, file, {.points = kClipboard_pt});
}

Result<void> printCautions(const QString& file) {
  QString body = QObject::tr(
      "<h1>Before and at the water</h1><p>General advice. Local codes and licensed people come "
      "first.</p>");
  for (const Caution& c : cautions()) {
    body +=
        QString("<h2>%1</h2><p>%2</p>").arg(text(c.heading).toHtmlEscaped(), text(c.full).toHtmlEscaped());
  }
  return printHtml(body, QObject::tr("Cautions"), file, {.points = kWall_pt});
}

Result<void> printLensBoard(const LensBoard& board, const QString& file) {
  const QSizeF size_mm = sizeOf(board);
  const QSizeF needed = size_mm + QSizeF(2.0 * kEdge_mm, 2.0 * kEdge_mm + 10.0);
  std::optional<QPageSize> page;
  for (const QPageSize::PageSizeId id : {QPageSize::A4, QPageSize::A3, QPageSize::A2}) {
    const QSizeF paper = QPageSize(id).size(QPageSize::Millimeter).transposed();
    if (!page && needed.width() <= paper.width() && needed.height() <= paper.height()) page = QPageSize(id);
  }
  if (!page) {
    return failure(ErrorCode::BadRequest,
                   QObject::tr("a board of %1 × %2 mm fits on no sheet; make its fields smaller")
                       .arg(size_mm.width(), 0, 'f', 0)
                       .arg(size_mm.height(), 0, 'f', 0)
                       .toStdString());
  }
  return writePdf(file, [&](QPdfWriter& writer) { drawBoard(board, *page, writer); });
}

CsvTable passSheetTable(const DayController& controller) {
  CsvTable table;
  table.heads = {"number", "block",      "rig",  "protocol",    "view",  "speed_mm_s", "control", "attempt",
                 "state",  "why_fouled", "note", "line_out_mm", "light", "wind",       "water_C"};
  int n = 0;
  for (const PlannedPass& p : controller.plan().sheet) {
    table.rows.push_back(
        {std::to_string(++n), std::to_string(p.block), controller.titleOf(p).toStdString(),
         std::string(toString(p.protocol)), std::string(toString(p.view)),
         p.speed_mm_s ? QString::number(*p.speed_mm_s).toStdString() : std::string(), p.control ? "yes" : "",
         std::to_string(p.attempt), std::string(toString(p.state)), p.whyFouled, p.note,
         p.lineOut_mm ? QString::number(*p.lineOut_mm).toStdString() : std::string(), p.light, p.wind,
         p.water_C ? QString::number(*p.water_C).toStdString() : std::string()});
  }
  return table;
}

}  // namespace fin::app
