// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <deque>

#include "app/controllers/pass_controller.h"

namespace fin::app {

/// Measures passes that do not lie on the bench, one after the other in the background: each as the log holds
/// it when its turn comes. What was changed meanwhile is not overwritten. For the window's thread.
class MeasuringQueue : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive it.
  MeasuringQueue(Log& log, const PassController& passes, QObject* parent = nullptr);

  /// Those that need only reading are read; with `follow` the others are followed as well.
  void add(const std::vector<PassId>& passes, bool follow);
  void stop();
  [[nodiscard]] std::size_t left() const { return waiting_.size() + (measuring_.running() ? 1 : 0); }

 signals:
  void changed();  ///< how many are left
  /// The readings of a pass before and after.
  void measured(PassId pass, const ReadingSet& before, const ReadingSet& after);
  void told(const QString& message, bool trouble);

 private:
  struct Waiting {
    PassId id;
    bool follow = false;
  };
  void next();
  void begin(const Waiting& waiting);
  void keep(const LoggedPass& pass, const ReadingSet& before, Result<Measured> measured);

  Log& log_;
  const PassController& passes_;
  std::deque<Waiting> waiting_;
  Job<Measured> measuring_;
};

}  // namespace fin::app
