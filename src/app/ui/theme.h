// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QColor>
#include <QFont>

class QApplication;

namespace fin::app {

/// The colours of the window: light paper and ink for daylight, one warm accent for what is under the hand.
struct Theme {
  QColor paper{0xF6, 0xF1, 0xE7};
  QColor card{0xFD, 0xFB, 0xF6};
  QColor line{0xCF, 0xC6, 0xB4};
  QColor ink{0x1E, 0x26, 0x2C};
  QColor faint{0x5A, 0x60, 0x62};
  QColor accent{0xB4, 0x4A, 0x16};
  QColor accentSoft{0xF3, 0xDD, 0xCC};
  QColor mat{0x7C, 0x7E, 0x7D};
  QColor trouble{0x9B, 0x1C, 0x2E};
  QColor troubleSoft{0xF6, 0xDF, 0xDE};
};

const Theme& theme();

/// Colour-blind-safe colours of marks and models (P. Tol, Colour Schemes, 2021: "bright").
QColor markColour(int index);

/// Shipped fonts, palette and style sheet for the whole program.
void dress(QApplication& application);

QFont largeNumberFont();

}  // namespace fin::app
