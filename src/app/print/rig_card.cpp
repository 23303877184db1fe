// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/rig_card.h"

#include <QPainter>
#include <QPainterPath>

#include "app/ui/theme.h"
#include "core/units/whole_folder.h"

namespace fin::app {
namespace {

constexpr int kWidth_px = 1080;
constexpr int kHeight_px = 1350;
constexpr int kEdge_px = 48;
constexpr int kPicture_px = 600;
constexpr int kReadingHeight_px = 122;
constexpr std::size_t kColumns = 2;

QFont letters(int size_px, QFont::Weight weight = QFont::Normal) {
  QFont font("Inter");
  font.setPixelSize(size_px);
  font.setWeight(weight);
  return font;
}

/// In one line, smaller where it would not fit, and cut where even that is too long.
void writeLine(QPainter& painter, const QRect& box, const QString& text, int size_px, QFont::Weight weight,
               Qt::Alignment lie = Qt::AlignLeft | Qt::AlignVCenter) {
  QFont font = letters(size_px, weight);
  while (font.pixelSize() > size_px * 6 / 10 && QFontMetrics(font).horizontalAdvance(text) > box.width())
    font.setPixelSize(font.pixelSize() - 1);
  painter.setFont(font);
  painter.drawText(box, static_cast<int>(lie),
                   QFontMetrics(font).elidedText(text, Qt::ElideRight, box.width()));
}

void drawPicture(QPainter& painter, const ReportRig& rig) {
  const QRect box(0, 0, kWidth_px, kPicture_px);
  painter.fillRect(box, lightTheme().mat);
  if (rig.picture.isNull()) {
    painter.setPen(lightTheme().card);
    writeLine(painter, box, QObject::tr("No picture of it"), 44, QFont::Normal, Qt::AlignCenter);
    return;
  }
  const QSize fills = rig.picture.size().scaled(box.size(), Qt::KeepAspectRatioByExpanding);
  QRect place(QPoint(), fills);
  place.moveCenter(box.center());
  painter.setClipRect(box);
  painter.drawImage(place, rig.picture);
  painter.setClipping(false);
}

void drawReadings(QPainter& painter, const ReportRig& rig, int top) {
  const int width = (kWidth_px - 3 * kEdge_px) / static_cast<int>(kColumns);
  for (std::size_t i = 0; i < rig.readings.size(); ++i) {
    const QPoint at(kEdge_px + static_cast<int>(i % kColumns) * (width + kEdge_px),
                    top + static_cast<int>(i / kColumns) * kReadingHeight_px);
    painter.setPen(lightTheme().faint);
    writeLine(painter, {at, QSize(width, 40)}, rig.readings[i].name, 30, QFont::Normal);
    painter.setPen(lightTheme().ink);
    writeLine(painter, {at + QPoint(0, 40), QSize(width, 58)}, rig.readings[i].value, 44, QFont::DemiBold);
  }
  if (!rig.readings.empty()) return;
  painter.setPen(lightTheme().faint);
  writeLine(painter, {kEdge_px, top, kWidth_px - 2 * kEdge_px, 60}, QObject::tr("Nothing was read of it."),
            36, QFont::Normal);
}

QString whatFor(const ReportRig& rig) {
  if (!rig.graded) return rig.standing;
  if (!rig.goodFor.isEmpty()) return QObject::tr("Best for: %1").arg(rig.goodFor.join("; "));
  if (!rig.nearlyFor.isEmpty())
    return QObject::tr("Nearest to the best for: %1").arg(rig.nearlyFor.join("; "));
  return rig.standing;
}

/// What it is for on the accent's ground, or why it has no place.
void drawPurpose(QPainter& painter, const ReportRig& rig, const QRect& box) {
  const Theme& t = lightTheme();
  painter.setPen(Qt::NoPen);
  painter.setBrush(rig.graded ? t.accentSoft : t.strip);
  painter.drawRoundedRect(box, 18, 18);
  painter.setPen(t.ink);
  const QString text = whatFor(rig);
  painter.setFont(letters(32, QFont::DemiBold));
  const QRect inner = box.adjusted(24, 10, -24, -10);
  const int flags = Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap;
  for (int size = 32; size > 20 && painter.boundingRect(inner, flags, text).height() > inner.height(); --size)
    painter.setFont(letters(size, QFont::DemiBold));
  painter.setClipRect(inner);
  painter.drawText(inner, flags, text);
  painter.setClipping(false);
}

/// Letters and figures alone: whatever a rig is called does no harm as a file's name.
QString fileName(const QString& rig, std::size_t number) {
  QString out;
  for (const QChar c : rig.left(60)) out += c.isLetterOrNumber() ? c.toLower() : QChar('-');
  while (out.contains("--")) out.replace("--", "-");
  return QString("%1-%2.png").arg(number, 2, 10, QChar('0')).arg(out);
}

}  // namespace

QImage rigCard(const ReportRig& rig, const QString& day, const QString& caveat) {
  QImage out(kWidth_px, kHeight_px, QImage::Format_RGB32);
  out.fill(lightTheme().paper);
  QPainter painter(&out);
  painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform |
                         QPainter::TextAntialiasing);
  drawPicture(painter, rig);
  const int width = kWidth_px - 2 * kEdge_px;
  painter.setPen(lightTheme().ink);
  writeLine(painter, {kEdge_px, kPicture_px + 16, width, 84}, rig.name, 58, QFont::Bold);
  drawReadings(painter, rig, kPicture_px + 108);
  const int purposeTop = kPicture_px + 108 + 3 * kReadingHeight_px + 2;
  drawPurpose(painter, rig, {kEdge_px, purposeTop, width, 156});
  painter.setPen(lightTheme().faint);
  const int foot = purposeTop + 166;
  writeLine(painter, {kEdge_px, foot, width, 40}, day, 26, QFont::Normal);
  writeLine(painter, {kEdge_px, foot + 38, width, 40}, caveat, 26, QFont::Normal);
  return out;
}

Result<std::size_t> writeRigCards(const Report& report, const QString& folder) {
  auto whole = WholeFolder::begin(folder.toStdString());
  if (!whole) return tl::unexpected(whole.error());
  const QString caveat = QObject::tr("Not every model was tested, and one tank is not a lake.");
  for (std::size_t i = 0; i < report.rigs.size(); ++i) {
    const QString file =
        QString::fromStdString((whole->part() / fileName(report.rigs[i].name, i + 1).toStdString()).string());
    if (!rigCard(report.rigs[i], report.title, caveat).save(file))
      return failure(ErrorCode::NotWritable, QObject::tr("%1 cannot be written").arg(folder).toStdString(),
                     folder.toStdString());
  }
  if (auto ok = whole->keep(); !ok) return tl::unexpected(ok.error());
  return report.rigs.size();
}

}  // namespace fin::app
