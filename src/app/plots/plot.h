// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPen>
#include <vector>

class QCPAxis;
class QCPGraph;
class QCustomPlot;

namespace fin::app {

/// An axis in the window's ink and type.
void dressAxis(QCPAxis& axis);
/// A plot in the window's paper, ink and type.
QCustomPlot* dressedPlot(const char* objectName);
/// A curve through points, which ends where they do: x rising, at least two. None for fewer.
QCPGraph* addCurve(QCustomPlot& plot, const std::vector<double>& x, const std::vector<double>& y,
                   const QPen& pen);

}  // namespace fin::app
