// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>

#include "core/comparison/class_spread.h"

namespace fin::app {

/// "glide in 4 of 5 passes (37 to 97 %), plumb in 1; 1 refused".
QString spokenClasses(const RigClasses& rig);
/// What can be told apart, what cannot, and how many passes it would take.
QStringList classesInWords(const ClassSpread& spread);

}  // namespace fin::app
