// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAbstractItemView>
#include <QCheckBox>
#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QTranslator>
#include <string>
#include <vector>

namespace fin::test {

/// Text that is seen in a window and does not fit where it stands, and whatever has to be scrolled sideways.
inline std::vector<std::string> cutIn(const QWidget& window) {
  std::vector<std::string> out;
  const auto tell = [&](const QWidget& w, const QString& text, const char* how) {
    out.push_back(
        (text + " (" + w.metaObject()->className() + " " + w.objectName() + ", " + how + ")").toStdString());
  };
  const auto shown = [](const QWidget* w) { return w->isVisible() && !w->visibleRegion().isEmpty(); };
  for (const QLabel* l : window.findChildren<QLabel*>()) {
    if (!shown(l) || l->text().isEmpty()) continue;
    const QSize wanted = l->sizeHint();
    const int needed = l->wordWrap() ? l->heightForWidth(l->width()) : wanted.height();
    if (l->height() < needed) tell(*l, l->text(), "too low");
    if (!l->wordWrap() && l->width() < wanted.width()) tell(*l, l->text(), "too narrow");
  }
  for (const QAbstractButton* b : window.findChildren<QAbstractButton*>()) {
    if (!shown(b) || b->text().isEmpty() || b->objectName().startsWith("qt_")) continue;
    QFont heavy = b->font();
    if (b->isCheckable() && qobject_cast<const QPushButton*>(b) != nullptr) heavy.setWeight(QFont::DemiBold);
    if (b->width() < QFontMetrics(heavy).size(Qt::TextShowMnemonic, b->text()).width())
      tell(*b, b->text(), "too narrow");
    if (b->height() < b->fontMetrics().height()) tell(*b, b->text(), "too low");
  }
  for (const QComboBox* b : window.findChildren<QComboBox*>()) {
    constexpr int kArrow_px = 30;
    if (shown(b) && b->width() < b->fontMetrics().horizontalAdvance(b->currentText()) + kArrow_px)
      tell(*b, b->currentText(), "too narrow");
  }
  for (const QHeaderView* h : window.findChildren<QHeaderView*>()) {
    if (!shown(h->viewport()) || h->orientation() != Qt::Horizontal || h->model() == nullptr) continue;
    for (int i = 0; i < h->count(); ++i) {
      const QString text = h->model()->headerData(i, Qt::Horizontal).toString();
      if (h->isSectionHidden(i) || text.isEmpty()) continue;
      QFont font = h->font();
      font.setWeight(QFont::DemiBold);
      if (h->sectionSize(i) < QFontMetrics(font).size(0, text).width()) tell(*h, text, "column too narrow");
    }
  }
  for (const QAbstractScrollArea* a : window.findChildren<QAbstractScrollArea*>()) {
    if (shown(a) && a->horizontalScrollBar()->isVisible()) tell(*a, a->accessibleName(), "scrolls sideways");
  }
  return out;
}

/// Every text of the program half as long again, as another language might need.
class HalfAsLongAgain : public QTranslator {
 public:
  [[nodiscard]] bool isEmpty() const override { return false; }
  [[nodiscard]] QString translate(const char* /*context*/, const char* source, const char* /*which*/,
                                  int /*n*/) const override {
    const QString text = QString::fromUtf8(source);
    QString more;
    for (qsizetype i = 0; i < text.size() / 2; ++i) more += i % 6 == 0 ? ' ' : 'o';
    return text + more;
  }
};

}  // namespace fin::test
