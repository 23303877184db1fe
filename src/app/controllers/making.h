// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

#include "app/jobs/job.h"

namespace fin::app {

/// Something to be shown to others that takes its time: made in the background, one at a time, whole or not
/// at all. For the window's thread.
class Making : public QObject {
  Q_OBJECT

 public:
  explicit Making(QObject* parent = nullptr) : QObject(parent) {}

  void stop();
  [[nodiscard]] bool busy() const { return job_.running(); }

 signals:
  void begun();
  void progressed(double share, double left_s);
  /// How it went.
  void done(const QString& message, bool trouble);

 protected:
  /// What it gives is what is said of it.
  void start(Job<QString>::Work work);

 private:
  Job<QString> job_;
};

}  // namespace fin::app
