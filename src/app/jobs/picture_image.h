// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <QRect>

#include "core/footage/picture.h"

namespace fin::app {

/// A picture with pixels of its own.
QImage imageOf(const Picture& picture);
/// A part of it that lies within it (all of it where none is said), made that wide.
///
/// Both may be made on any thread, also while the program ends: QImage itself scales and converts with
/// threads of Qt's, for which a thread of ours would wait for ever then.
QImage imageOf(const Picture& picture, int width, QRect part = {});

}  // namespace fin::app
