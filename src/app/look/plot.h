// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

class QCPAxis;

namespace fin::app {

/// An axis in the window's ink and type.
void dressAxis(QCPAxis& axis);

}  // namespace fin::app
