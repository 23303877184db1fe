// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>

#include "core/footage/picture.h"

namespace fin::app {

/// A picture with pixels of its own, for the window's thread.
QImage imageOf(const Picture& picture);

}  // namespace fin::app
