// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <deque>
#include <optional>

#include "app/jobs/job.h"
#include "core/comparison/ranking.h"

namespace fin::app {

/// Rankings with their chances, worked out in the background and remembered: thousands of orders are drawn
/// for each. For the window's thread.
class Rankings : public QObject {
  Q_OBJECT

 public:
  using QObject::QObject;

  /// Null while it is being worked out; `ready` follows. What it points to stays until the next call.
  [[nodiscard]] const Ranking* of(const ScoreTable& table, const RankOptions& options);
  [[nodiscard]] bool busy() const { return working_.running(); }

 signals:
  void ready();

 private:
  struct Known {
    ScoreTable table;
    RankOptions options;
    std::optional<Ranking> ranking;
  };
  void workNext();

  std::deque<Known> known_;  ///< what was asked for last comes last
  Job<Ranking> working_;
};

}  // namespace fin::app
