// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QHelpEvent>
#include <QLabel>
#include <QPalette>
#include <QStyleFactory>
#include <QToolTip>
#include <array>

/// Resources of a static library have to be called in by name, outside of any namespace.
static void callInResources() {
  Q_INIT_RESOURCE(ui);
}

namespace fin::app {
namespace {

QPalette paletteOf(const Theme& t) {
  QPalette p;
  p.setColor(QPalette::Window, t.paper);
  p.setColor(QPalette::WindowText, t.ink);
  p.setColor(QPalette::Base, t.card);
  p.setColor(QPalette::AlternateBase, t.paper);
  p.setColor(QPalette::Text, t.ink);
  p.setColor(QPalette::Button, t.card);
  p.setColor(QPalette::ButtonText, t.ink);
  p.setColor(QPalette::Highlight, t.accent);
  p.setColor(QPalette::HighlightedText, Qt::white);
  p.setColor(QPalette::ToolTipBase, t.card);
  p.setColor(QPalette::ToolTipText, t.ink);
  p.setColor(QPalette::PlaceholderText, t.faint);
  p.setColor(QPalette::Disabled, QPalette::ButtonText, QColor(0x8A, 0x8A, 0x84));
  p.setColor(QPalette::Disabled, QPalette::WindowText, QColor(0x8A, 0x8A, 0x84));
  p.setColor(QPalette::Disabled, QPalette::Text, QColor(0x8A, 0x8A, 0x84));
  return p;
}

QString styleSheetOf(const Theme& t) {
  const QString sheet = R"(
    QPushButton, QToolButton { background: @card; border: 1px solid @line; border-radius: 6px; padding: 5px 11px; }
    QPushButton:hover, QToolButton:hover { border-color: @accent; }
    QPushButton:checked, QToolButton:checked { background: @soft; border: 1px solid @accent; font-weight: 600; }
    QPushButton:focus, QToolButton:focus { border: 2px solid @ink; padding: 4px 10px; }
    QPushButton:disabled, QToolButton:disabled { color: #8a8a84; background: @paper; }
    QPushButton[primary="true"] { background: @accent; color: white; border-color: @accent; font-weight: 600; }
    QPushButton[primary="true"]:disabled { background: @line; border-color: @line; color: #77736a; }
    QPushButton[fold="true"] { border: none; background: transparent; text-align: left; padding: 3px 4px;
      font-weight: 600; }
    QPushButton[fold="true"]:hover { color: @accent; }
    QPushButton[fold="true"]:focus { border: 2px solid @accent; padding: 1px 2px; }
    QPushButton[place="true"] { border: none; background: transparent; padding: 9px 15px; border-radius: 0px; }
    QPushButton[place="true"]:hover { color: @accent; }
    QPushButton[place="true"]:focus { border: 2px solid @ink; padding: 7px 11px; }
    QPushButton[place="true"]:checked { background: @paper; border-bottom: 3px solid @accent; font-weight: 600;
                                        padding: 9px 15px 6px 15px; }
    QPushButton[place="true"]:checked:focus { padding: 7px 11px 6px 11px; }
    QLineEdit, QDoubleSpinBox, QSpinBox, QComboBox, QPlainTextEdit { background: @card; border: 1px solid @line;
                                        border-radius: 5px; padding: 3px 6px; min-height: 22px; }
    QComboBox::drop-down { border: none; width: 22px; }
    QComboBox::down-arrow { image: url(:/ui/arrow.svg); width: 11px; height: 11px; }
    QComboBox QAbstractItemView { background: @card; border: 1px solid @line; selection-background-color: @soft;
                                  selection-color: @ink; }
    QLineEdit:focus, QDoubleSpinBox:focus, QSpinBox:focus, QComboBox:focus { border: 2px solid @accent; padding: 2px 5px; }
    QFrame[card="true"] { background: @card; border: 1px solid @line; border-radius: 8px; }
    QLabel[heading="true"] { font-weight: 600; }
    QLabel[faint="true"] { color: @faint; }
    QLabel[trouble="true"] { color: @trouble; }
    QProgressBar { border: 1px solid @line; border-radius: 5px; background: @paper; text-align: center; height: 20px; }
    QProgressBar::chunk { background: @soft; border-radius: 4px; }
    QScrollArea { border: none; background: transparent; }
    QToolTip { background: @card; color: @ink; border: 1px solid @line; padding: 4px; }
    QListWidget::item { padding: 6px 4px; }
    QTableView, QListView, QTreeView { background: @card; border: 1px solid @line; border-radius: 6px;
                                        gridline-color: #e4dccb; selection-background-color: @soft; selection-color: @ink; }
    QTreeView::item { padding: 3px 0px; }
    QHeaderView::section { background: @paper; border: none; border-bottom: 1px solid @line; padding: 5px 6px; font-weight: 600; }
  )";
  QString out = sheet;
  out.replace("@card", t.card.name());
  out.replace("@paper", t.paper.name());
  out.replace("@line", t.line.name());
  out.replace("@accent", t.accent.name());
  out.replace("@soft", t.accentSoft.name());
  out.replace("@faint", t.faint.name());
  out.replace("@trouble", t.trouble.name());
  out.replace("@ink", t.ink.name());
  return out;
}

/// Names and notes out of a log are never taken for markup: labels and tool tips show plain text unless a
/// label was told that it is rich.
class PlainText : public QObject {
 public:
  using QObject::QObject;
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() == QEvent::Polish) {
      auto* label = qobject_cast<QLabel*>(watched);
      if (label != nullptr && label->textFormat() == Qt::AutoText) label->setTextFormat(Qt::PlainText);
    }
    if (event->type() == QEvent::ToolTip) {
      const auto* widget = qobject_cast<QWidget*>(watched);
      if (widget == nullptr || !Qt::mightBeRichText(widget->toolTip())) return false;
      QToolTip::showText(static_cast<QHelpEvent*>(event)->globalPos(), widget->toolTip().toHtmlEscaped());
      return true;
    }
    return false;
  }
};

}  // namespace

const Theme& theme() {
  static const Theme light;
  return light;
}

QColor markColour(int index) {
  static const std::array colours{QColor(0xEE, 0x66, 0x77), QColor(0x66, 0xCC, 0xEE),
                                  QColor(0xCC, 0xBB, 0x44), QColor(0x22, 0x88, 0x33),
                                  QColor(0xAA, 0x33, 0x77), QColor(0x44, 0x77, 0xAA)};
  return colours[static_cast<std::size_t>(index) % colours.size()];
}

void dress(QApplication& application) {
  application.installEventFilter(new PlainText(&application));
  callInResources();
  QFontDatabase::addApplicationFont(":/ui/fonts/Inter-Regular.otf");
  QFontDatabase::addApplicationFont(":/ui/fonts/Inter-SemiBold.otf");
  QFont font("Inter");
  font.setPixelSize(14);
  application.setStyle(QStyleFactory::create("Fusion"));
  application.setFont(font);
  application.setPalette(paletteOf(theme()));
  application.setStyleSheet(styleSheetOf(theme()));
}

QFont largeNumberFont() {
  QFont font("Inter");
  font.setPixelSize(21);
  font.setWeight(QFont::DemiBold);
  return font;
}

}  // namespace fin::app
