// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>

namespace fin::app {

/// A card that is closed to its heading and one line of how things stand, until it is pressed open.
class Fold : public QFrame {
  Q_OBJECT

 public:
  Fold(const QString& title, const char* name, QWidget* content, QWidget* parent = nullptr);
  void setOpen(bool open);
  [[nodiscard]] bool isOpen() const;
  /// How things stand, in a few words.
  void setState(const QString& text);

 signals:
  void opened();

 private:
  QString title_;
  QPushButton* head_;
  QLabel* state_;
  QWidget* content_;
};

}  // namespace fin::app
