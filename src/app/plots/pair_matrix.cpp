// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plots/pair_matrix.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>

#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kCellWide_px = 52;
constexpr int kCellHigh_px = 28;
constexpr int kWidestNames_px = 150;
constexpr int kGap_px = 8;

}  // namespace

PairMatrix::PairMatrix(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
}

void PairMatrix::show(const QStringList& names, std::vector<Cell> cells) {
  names_ = names;
  cells_ = std::move(cells);
  QStringList words;
  for (const Cell& cell : cells_) words += cell.words;
  setAccessibleDescription(words.join(". "));
  setVisible(!cells_.empty());
  updateGeometry();
  update();
}

int PairMatrix::namesWidth() const {
  int widest = 0;
  for (const QString& name : names_) widest = std::max(widest, fontMetrics().horizontalAdvance(name));
  return std::min(widest, kWidestNames_px);
}

QSize PairMatrix::sizeHint() const {
  const int n = static_cast<int>(names_.size());
  return {namesWidth() + kGap_px + std::max(n - 1, 0) * kCellWide_px + 1, n * kCellHigh_px + 1};
}

QRect PairMatrix::placeOf(std::size_t row, std::size_t column) const {
  return {namesWidth() + kGap_px + (static_cast<int>(column) - 1) * kCellWide_px,
          static_cast<int>(row) * kCellHigh_px, kCellWide_px, kCellHigh_px};
}

bool PairMatrix::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  for (const Cell& cell : cells_) {
    if (!placeOf(cell.row, cell.column).contains(help->pos())) continue;
    QToolTip::showText(help->globalPos(), cell.words, this);
    return true;
  }
  QToolTip::hideText();
  return true;
}

void PairMatrix::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const int wide = namesWidth();
  for (qsizetype i = 0; i < names_.size(); ++i) {
    // On the diagonal: to the right of it its row, over it its column.
    const QRect place(static_cast<int>(i) * kCellWide_px, static_cast<int>(i) * kCellHigh_px, wide,
                      kCellHigh_px);
    painter.setPen(theme().ink);
    painter.drawText(place, Qt::AlignVCenter | Qt::AlignRight,
                     fontMetrics().elidedText(names_[i], Qt::ElideRight, wide));
  }
  for (const Cell& cell : cells_) {
    const QRect place = placeOf(cell.row, cell.column).adjusted(2, 2, -2, -2);
    painter.setPen(QPen(theme().ink, cell.apart ? 1.0 : 0.6, cell.apart ? Qt::SolidLine : Qt::DotLine));
    painter.setBrush(cell.apart ? QBrush(theme().ink) : QBrush(Qt::NoBrush));
    painter.drawRect(place);
    painter.setPen(cell.apart ? theme().card : theme().ink);
    painter.drawText(place, Qt::AlignCenter, cell.text);
  }
}

}  // namespace fin::app
