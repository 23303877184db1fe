// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidgetItem>

#include "core/planning/cautions.h"

namespace fin::app {

// Small pieces that every place is made of.

/// Text over as many lines as it needs, which is always given the height for them. (A layout within others
/// does not ask a plain label how high it is at its width.)
class WholeLabel : public QLabel {
  Q_OBJECT

 public:
  explicit WholeLabel(const QString& text = {}, QWidget* parent = nullptr);
  [[nodiscard]] QSize sizeHint() const override;
  [[nodiscard]] QSize minimumSizeHint() const override;

 protected:
  void resizeEvent(QResizeEvent* event) override;
};

QLabel* headingLabel(const QString& text);
QLabel* faintLabel(const QString& text);
/// The same for markup; what comes from a person is escaped before.
QLabel* faintRichLabel(const QString& html);
/// A long path may be broken after each of its folders.
QString breakable(QString text);
/// Sets a property that the style sheet looks at.
void setLook(QWidget& widget, const char* property, bool on);
/// Lets a control be used; where it cannot be, its tool tip and what is read aloud say why.
void enableOr(QWidget& control, bool usable, const QString& why);
/// Of what was just added: the cursor stands in its name, ready to be typed over.
void beginNaming(QLineEdit& name);
QPushButton* namedButton(const QString& text, const char* objectName);
QFrame* card();
/// Of a table that is read and not written in.
QTableWidgetItem* readOnlyCell(const QString& text, Qt::Alignment align = Qt::AlignLeft | Qt::AlignVCenter);
inline constexpr Qt::Alignment kNumberCell = Qt::AlignRight | Qt::AlignVCenter;
/// Width of the column of choices to the left of a page.
inline constexpr int kChoicesWidth_px = 300;
/// Makes a column that wide, or as wide as what stands in it needs.
void keepColumn(QWidget& column, int width_px);

/// The cautions of a step, one line each; null where there are none.
QWidget* cautionLines(Step step);

}  // namespace fin::app
