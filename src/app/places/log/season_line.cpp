// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/log/season_line.h"

#include <QDate>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>
#include <optional>

#include "app/ui/theme.h"
#include "core/units/date.h"

namespace fin::app {
namespace {

constexpr int kTall_px = 84;
constexpr double kMargin_px = 26.0;
constexpr double kLine_px = 34.0;  ///< from the top
constexpr double kNearMark_px = 14.0;
constexpr double kBetweenMonths_px = 58.0;
constexpr qint64 kEpochJulian = 2440588;

QDate dateOn(int dayNumber) {
  return QDate::fromJulianDay(kEpochJulian + dayNumber);
}

}  // namespace

SeasonLine::SeasonLine(QWidget* parent) : QWidget(parent) {
  setObjectName("seasonLine");
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize SeasonLine::sizeHint() const {
  return {600, kTall_px};
}

void SeasonLine::show(const std::vector<DayHead>& days, DayId chosen, std::set<DayId> changed) {
  changed_ = std::move(changed);
  days_.clear();
  std::copy_if(days.begin(), days.end(), std::back_inserter(days_),
               [](const DayHead& d) { return dayNumberOf(d.date).has_value(); });
  chosen_ = chosen;
  if (!days_.empty()) {
    constexpr int kShortest_days = 30;
    from_ = *dayNumberOf(days_.front().date);
    to_ = *dayNumberOf(days_.back().date);
    const int room = std::max(0, kShortest_days - (to_ - from_)) / 2 + 1;  // a few days stand in the middle
    from_ -= room;
    to_ += room;
  }
  setAccessibleName(tr("The season: %1 days with a date").arg(days_.size()));
  update();
}

double SeasonLine::xOf(std::size_t day) const {
  const double share = static_cast<double>(*dayNumberOf(days_[day].date) - from_) / (to_ - from_);
  return kMargin_px + share * (width() - 2.0 * kMargin_px);
}

std::optional<std::size_t> SeasonLine::dayAt(QPointF at) const {
  std::optional<std::size_t> best;
  for (std::size_t i = 0; i < days_.size(); ++i) {
    const double away = std::abs(xOf(i) - at.x());
    if (away <= kNearMark_px && (!best || away < std::abs(xOf(*best) - at.x()))) best = i;
  }
  return best;
}

void SeasonLine::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(theme().line, 2));
  painter.drawLine(QPointF(kMargin_px, kLine_px), QPointF(width() - kMargin_px, kLine_px));
  if (days_.empty()) {
    painter.setPen(theme().faint);
    painter.drawText(rect(), Qt::AlignCenter, tr("Days with a date stand here, in the order of the season."));
    return;
  }
  painter.setFont(smallFont());
  double last = -kBetweenMonths_px;
  for (QDate month = dateOn(from_).addDays(1 - dateOn(from_).day()); month <= dateOn(to_);
       month = month.addMonths(1)) {
    const double share = static_cast<double>(month.toJulianDay() - kEpochJulian - from_) / (to_ - from_);
    const double x = std::max(kMargin_px, kMargin_px + share * (width() - 2.0 * kMargin_px));
    if (x - last < kBetweenMonths_px) continue;
    last = x;
    painter.setPen(theme().faint);
    painter.drawLine(QPointF(x, kLine_px + 12), QPointF(x, kLine_px + 18));
    painter.drawText(
        QPointF(x + 4, kLine_px + 36),
        QLocale::c().toString(month, month.month() == 1 || last == kMargin_px ? "MMM yyyy" : "MMM"));
  }
  for (std::size_t i = 0; i < days_.size(); ++i) {
    const bool chosen = days_[i].id == chosen_;
    const bool water = days_[i].kind == DayKind::Water;
    const double size = chosen ? 9.0 : 6.0;
    const QColor ink = chosen ? theme().accent : theme().ink;
    painter.setPen(QPen(ink, 2.5));
    painter.setBrush(water ? theme().card : ink);
    painter.drawEllipse(QPointF(xOf(i), kLine_px), size, size);
    painter.setPen(ink);
    if (changed_.contains(days_[i].id)) {
      painter.drawLine(QPointF(xOf(i) - 14, kLine_px - 8), QPointF(xOf(i) - 14, kLine_px + 8));
    }
    QString text;
    if (chosen)
      text = QLocale::c().toString(QDate::fromString(QString::fromStdString(days_[i].date), Qt::ISODate),
                                   "d MMM");
    if (water) text += (text.isEmpty() ? QString() : QString(": ")) + tr("%1 fish").arg(days_[i].fish);
    if (text.isEmpty()) continue;
    const double wide = painter.fontMetrics().horizontalAdvance(text);
    painter.drawText(QPointF(std::clamp(xOf(i) - 0.5 * wide, 2.0, width() - wide - 2.0), kLine_px - 15),
                     text);
  }
  if (hasFocus()) {
    painter.setPen(QPen(theme().ink, 2));
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 5, 5);
  }
}

void SeasonLine::mousePressEvent(QMouseEvent* event) {
  if (const auto day = dayAt(event->position())) emit dayWanted(days_[*day].id);
}

void SeasonLine::keyPressEvent(QKeyEvent* event) {
  const int step = event->key() == Qt::Key_Left ? -1 : event->key() == Qt::Key_Right ? 1 : 0;
  if (step == 0 || days_.empty()) return QWidget::keyPressEvent(event);
  const auto at =
      std::find_if(days_.begin(), days_.end(), [this](const DayHead& d) { return d.id == chosen_; });
  const auto last = static_cast<std::ptrdiff_t>(days_.size()) - 1;
  const std::ptrdiff_t to =
      at == days_.end() ? last : std::clamp<std::ptrdiff_t>(at - days_.begin() + step, 0, last);
  emit dayWanted(days_[static_cast<std::size_t>(to)].id);
}

bool SeasonLine::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    auto* help = static_cast<QHelpEvent*>(event);
    const auto day = dayAt(help->pos());
    QToolTip::showText(
        help->globalPos(),
        day ? QString::fromStdString(days_[*day].date + "  " + days_[*day].name) +
                  (changed_.contains(days_[*day].id) ? tr("; a rig is tied otherwise from here on")
                                                     : QString())
            : QString());
    return true;
  }
  return QWidget::event(event);
}

}  // namespace fin::app
