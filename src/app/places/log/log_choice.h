// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace fin::app {

/// Which log is open, or why none is, and the way to another one.
class LogChoice : public QWidget {
  Q_OBJECT

 public:
  /// `trouble` is empty where `file` is the log that is open.
  LogChoice(const QString& file, const QString& trouble, QWidget* parent = nullptr);
  /// Asks for a log's file.
  void openAnother();

 signals:
  void chosen(const QString& file);

 private:
  void beginAnother();
};

}  // namespace fin::app
