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

#include "app/ui/settings.h"
#include "app/ui/system_look.h"

/// Resources of a static library have to be called in by name, outside of any namespace.
static void callInResources() {
  Q_INIT_RESOURCE(ui);
}

namespace fin::app {
namespace {

constexpr int kText_px = 14;
constexpr int kSmallText_px = 12;
constexpr int kLargeText_px = 21;

const Theme* worn = &lightTheme();

int scaled_px(int size) {
  return size * Settings::all().textSize_percent() / 100;
}

QFont fontOf(int size) {
  QFont font("Inter");
  font.setPixelSize(scaled_px(size));
  return font;
}

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
  p.setColor(QPalette::HighlightedText, t.onAccent);
  p.setColor(QPalette::ToolTipBase, t.card);
  p.setColor(QPalette::ToolTipText, t.ink);
  p.setColor(QPalette::PlaceholderText, t.faint);
  for (const QPalette::ColorRole role : {QPalette::ButtonText, QPalette::WindowText, QPalette::Text})
    p.setColor(QPalette::Disabled, role, t.gone);
  return p;
}

QString styleSheetOf(const Theme& t) {
  const QString sheet = R"(
    QPushButton, QToolButton { background: @card; border: 1px solid @line; border-radius: 6px; padding: 5px 11px; }
    QPushButton:hover, QToolButton:hover { border-color: @accent; }
    QPushButton:checked, QToolButton:checked { background: @accentSoft; border: 1px solid @accent; font-weight: 600; }
    QPushButton:focus, QToolButton:focus { border: 2px solid @ink; padding: 4px 10px; }
    QFileDialog QToolButton { padding: 3px; }
    QFileDialog QToolButton:focus { padding: 2px; }
    QPushButton:disabled, QToolButton:disabled { color: @gone; background: @paper; }
    QPushButton[primary="true"] { background: @accent; color: @onAccent; border-color: @accent; font-weight: 600; }
    QPushButton[primary="true"]:disabled { background: @line; border-color: @line; color: @gone; }
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
    QComboBox::down-arrow { image: url(:/ui/@arrow); width: 11px; height: 11px; }
    QComboBox QAbstractItemView { background: @card; border: 1px solid @line; selection-background-color: @accentSoft;
                                  selection-color: @ink; }
    QLineEdit:focus, QDoubleSpinBox:focus, QSpinBox:focus, QComboBox:focus { border: 2px solid @accent; padding: 2px 5px; }
    QFrame[card="true"] { background: @card; border: 1px solid @line; border-radius: 8px; }
    QLabel[heading="true"] { font-weight: 600; }
    *[letters="small"] { font-size: @12; }
    *[letters="middle"] { font-size: @18; }
    *[letters="strong"] { font-size: @18; font-weight: 600; }
    *[letters="large"] { font-size: @21; font-weight: 600; }
    *[letters="larger"] { font-size: @27; }
    *[letters="title"] { font-size: @29; font-weight: 600; }
    *[letters="huge"] { font-size: @46; font-weight: 600; }
    *[letters="giant"] { font-size: @76; font-weight: 600; }
    QWidget[strip="true"] { background: @strip; }
    QLabel[faint="true"] { color: @faint; }
    QLabel[trouble="true"] { color: @trouble; }
    QProgressBar { border: 1px solid @line; border-radius: 5px; background: @paper; text-align: center; height: 20px; }
    QProgressBar::chunk { background: @accentSoft; border-radius: 4px; }
    QScrollArea { border: none; background: transparent; }
    QToolTip { background: @card; color: @ink; border: 1px solid @line; padding: 4px; }
    QListWidget::item, QListView#foundList::item { padding: 6px 4px; }
    QTableView, QListView, QTreeView { background: @card; border: 1px solid @line; border-radius: 6px;
                                        gridline-color: @grid; selection-background-color: @accentSoft; selection-color: @ink; }
    QTreeView::item { padding: 3px 0px; }
    QHeaderView::section { background: @paper; border: none; border-bottom: 1px solid @line; padding: 5px 6px; font-weight: 600; }
  )";
  QString out = sheet;
  // The longer names first.
  const std::pair<const char*, QColor> colours[] = {{"@accentSoft", t.accentSoft},
                                                    {"@onAccent", t.onAccent},
                                                    {"@accent", t.accent},
                                                    {"@card", t.card},
                                                    {"@paper", t.paper},
                                                    {"@strip", t.strip},
                                                    {"@line", t.line},
                                                    {"@grid", t.grid},
                                                    {"@faint", t.faint},
                                                    {"@gone", t.gone},
                                                    {"@ink", t.ink},
                                                    {"@trouble", t.trouble}};
  for (const auto& [name, colour] : colours) out.replace(name, colour.name());
  out.replace("@arrow", &t == &darkTheme() ? "arrow-light.svg" : "arrow.svg");
  for (const int size : {12, 18, 21, 27, 29, 46, 76})
    out.replace(QString("@%1").arg(size), QString("%1px").arg(scaled_px(size)));
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

const Theme& lightTheme() {
  static const Theme light{.paper = {0xF6, 0xF1, 0xE7},
                           .card = {0xFD, 0xFB, 0xF6},
                           .strip = {0xEA, 0xE2, 0xD2},
                           .line = {0xCF, 0xC6, 0xB4},
                           .grid = {0xE2, 0xDB, 0xCD},
                           .ink = {0x1E, 0x26, 0x2C},
                           .faint = {0x55, 0x5B, 0x5D},
                           .gone = {0x5F, 0x5F, 0x5A},
                           .accent = {0xA8, 0x44, 0x12},
                           .accentSoft = {0xF3, 0xDD, 0xCC},
                           .onAccent = {0xFF, 0xFF, 0xFF},
                           .mat = {0x7C, 0x7E, 0x7D},
                           .trouble = {0x9B, 0x1C, 0x2E},
                           .troubleSoft = {0xF6, 0xDF, 0xDE}};
  return light;
}

const Theme& darkTheme() {
  static const Theme dark{.paper = {0x20, 0x24, 0x26},
                          .card = {0x2A, 0x2F, 0x32},
                          .strip = {0x16, 0x19, 0x1B},
                          .line = {0x50, 0x57, 0x5A},
                          .grid = {0x3A, 0x40, 0x43},
                          .ink = {0xEE, 0xE8, 0xDC},
                          .faint = {0xB6, 0xB6, 0xAE},
                          .gone = {0xA8, 0xAB, 0xA9},
                          .accent = {0xEE, 0x9A, 0x5F},
                          .accentSoft = {0x55, 0x3A, 0x2A},
                          .onAccent = {0x1E, 0x20, 0x22},
                          .mat = {0x44, 0x48, 0x4A},
                          .trouble = {0xF4, 0x9A, 0x9C},
                          .troubleSoft = {0x4E, 0x2B, 0x2E}};
  return dark;
}

const Theme& theme() {
  return *worn;
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
  auto* system = new SystemLook(QApplication::palette(), &application);
  application.setStyle(QStyleFactory::create("Fusion"));
  const auto wear = [&application, system] {
    const Look look = Settings::all().look();
    const bool dark = look == Look::Dark || (look == Look::AsTheSystem && system->isDark());
    worn = dark ? &darkTheme() : &lightTheme();
    application.setStyleSheet({});  // else every step would style all widgets anew
    application.setFont(fontOf(kText_px));
    application.setPalette(paletteOf(theme()));
    application.setStyleSheet(styleSheetOf(theme()));
  };
  QObject::connect(&Settings::all(), &Settings::looksChanged, &application, wear);
  QObject::connect(system, &SystemLook::changed, &application, wear);
  wear();
}

void setLetters(QWidget& widget, const char* size) {
  widget.setProperty("letters", size);
}

QFont smallFont() {
  return fontOf(kSmallText_px);
}

QFont largeFont() {
  QFont font = fontOf(kLargeText_px);
  font.setWeight(QFont::DemiBold);
  return font;
}

}  // namespace fin::app
