// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>

class QLabel;

namespace fin::app {

/// One line above all places for what went wrong, wherever it did: it stays until it is closed or something
/// newer takes its place. The same message twice in a row is shown once.
class NoticeBar : public QFrame {
  Q_OBJECT

 public:
  explicit NoticeBar(QWidget* parent = nullptr);

  void say(const QString& message);
  [[nodiscard]] QString message() const;

 private:
  QLabel* text_;
};

}  // namespace fin::app
