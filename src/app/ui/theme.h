// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QColor>
#include <QFont>

class QApplication;
class QWidget;

namespace fin::app {

/// The colours of the window: paper and ink, one warm accent for what is under the hand. Text keeps a
/// contrast of 4.5 to 1 against what it stands on.
struct Theme {
  QColor paper, card, strip, line, grid;
  QColor ink, faint, gone;  ///< `gone`: what cannot be used now
  QColor accent, accentSoft, onAccent;
  QColor mat;  ///< about footage
  QColor trouble, troubleSoft;
};

/// For daylight, and for the evening.
const Theme& lightTheme();
const Theme& darkTheme();
/// The one that is worn.
const Theme& theme();

/// Colour-blind-safe colours of marks and models (P. Tol, Colour Schemes, 2021: "bright").
QColor markColour(int index);

/// Shipped fonts, palette and style sheet for the whole program, as the settings say, and anew when they or
/// the system change; plots, which are no part of the style, are dyed over.
void dress(QApplication& application);

/// Letters of another size than usual: "small", "middle", "strong" (and as large), "large", "larger",
/// "title", "huge" or (20 mm on a screen of 96 dots to the inch) "giant".
void setLetters(QWidget& widget, const char* size);
/// Of what is painted, and of a table's cells.
QFont smallFont();
QFont largeFont();

}  // namespace fin::app
