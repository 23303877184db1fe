// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/look/plot.h"

#include <qcustomplot.h>

#include "app/look/theme.h"

namespace fin::app {

void dressAxis(QCPAxis& axis) {
  axis.setLabelColor(theme().ink);
  axis.setTickLabelColor(theme().ink);
  axis.setBasePen(QPen(theme().line));
  axis.setTickPen(QPen(theme().line));
  axis.setSubTickPen(Qt::NoPen);
  axis.grid()->setPen(QPen(QColor(0xE2, 0xDB, 0xCD), 1));
  axis.grid()->setZeroLinePen(QPen(theme().line, 1));
  QFont font;
  font.setPixelSize(12);
  axis.setTickLabelFont(font);
  axis.setLabelFont(font);
}

}  // namespace fin::app
