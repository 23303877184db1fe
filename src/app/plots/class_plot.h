// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

#include "core/comparison/class_spread.h"

class QCustomPlot;

namespace fin::app {

/// A lane for each rig, a piece of it for each pass: filled and named by its class, hollow where it was
/// refused.
void drawClasses(QCustomPlot& plot, const ClassSpread& spread, const QString& name);

}  // namespace fin::app
