// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPen>
#include <vector>

class QCPAxis;
class QCPGraph;
class QCustomPlot;
class QWidget;

namespace fin::app {

struct Theme;

/// An axis in the window's ink and type.
void dressAxis(QCPAxis& axis);
/// A plot in the window's paper, ink and type.
QCustomPlot* dressedPlot(const char* objectName);
/// All plots of a window, drawn in one theme, as the other one has it.
void dyePlots(QWidget& within, const Theme& from, const Theme& to);
/// In a lane of a plot whose lanes lie along y: a mean as a diamond, with a bar over its interval.
void addMean(QCustomPlot& plot, double lane, const QColor& colour, double mean, double from, double to);
/// A curve through points, which ends where they do: x rising, at least two. None for fewer.
QCPGraph* addCurve(QCustomPlot& plot, const std::vector<double>& x, const std::vector<double>& y,
                   const QPen& pen);

}  // namespace fin::app
