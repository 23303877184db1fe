// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QListWidget>
#include <QPushButton>
#include <filesystem>

#include "core/records/taken_out.h"

namespace fin::app {

/// What was taken out of the log, to be brought back.
class TakenOutList : public QWidget {
  Q_OBJECT

 public:
  explicit TakenOutList(std::filesystem::path log, QWidget* parent = nullptr);
  void refresh();

 signals:
  void broughtBack();
  void told(const QString& message, bool trouble);

 private:
  void bringBack();

  std::filesystem::path log_;
  QListWidget* list_;
  QPushButton* back_;
  std::vector<TakenOut> rows_;
};

}  // namespace fin::app
