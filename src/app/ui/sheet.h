// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QPointer>

namespace fin::app {

/// A card that lies over the whole of a window until it is put away: with Esc, with a press beside it, or by
/// put(nullptr). There is one at a time. What had the focus gets it back.
class Sheet : public QWidget {
  Q_OBJECT

 public:
  explicit Sheet(QWidget& window);

  /// Shows a card in place of any before; `first` gets the focus. The sheet owns it.
  void put(QWidget* content, QWidget* first);
  void away();
  [[nodiscard]] QWidget* content() const { return content_; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void layOut();

  QWidget* content_ = nullptr;
  QPointer<QWidget> before_;
};

}  // namespace fin::app
