// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>

class QComboBox;
class QLayout;

namespace fin::app {

/// What can be chosen about the program itself. Everything acts at once.
class SettingsSheet : public QFrame {
  Q_OBJECT

 public:
  explicit SettingsSheet(QWidget* parent = nullptr);
  [[nodiscard]] QWidget* first() const;

 signals:
  /// The passes that the log holds already are to be read by the thresholds chosen, too.
  void thresholdsForAll();

 private:
  [[nodiscard]] QLayout* buildThresholds();

  QComboBox* look_;
};

}  // namespace fin::app
