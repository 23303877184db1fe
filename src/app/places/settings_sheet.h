// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>

class QComboBox;

namespace fin::app {

/// What can be chosen about the program itself. Everything acts at once.
class SettingsSheet : public QFrame {
  Q_OBJECT

 public:
  explicit SettingsSheet(QWidget* parent = nullptr);
  [[nodiscard]] QWidget* first() const;

 private:
  QComboBox* look_;
};

}  // namespace fin::app
