// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <map>
#include <optional>
#include <vector>

#include "app/controllers/line_up.h"
#include "app/jobs/job.h"
#include "core/calibration/clip_clock.h"
#include "core/measuring/session.h"

namespace fin::app {

/// A pass with its clip open and its traces read, to be seen beside others.
struct StudiedPass {
  PassId id;
  QString rig;
  QString title;
  PassRequest request;
  bool outdated = false;  ///< its track does not belong to its request: it is being followed anew
  std::shared_ptr<const Clip> clip;
  std::optional<ClipClock> clock;
  std::optional<PassResult> result;
  QString trouble;  ///< why there is no clip, or no trace; empty where there is all

  /// Its own true time at the end of what its clip holds.
  [[nodiscard]] double end_s() const;
};

/// Instants that passes can be laid beside each other by.
enum class Instant { RunBegins, TouchDown, FirstTwitch, SecondTwitch, Stop };
/// On the pass's own true time; none where it has no such instant.
std::optional<double> instantIn(const StudiedPass& pass, Instant instant);

/// Opens passes of the log in the background, and keeps those that are wanted. What was changed on the bench
/// in between is opened again.
class StudiedPasses : public QObject {
  Q_OBJECT

 public:
  /// Must outlive it.
  explicit StudiedPasses(const LineUp& lineUp, QObject* parent = nullptr);

  void want(const std::vector<PassId>& passes);
  [[nodiscard]] const std::vector<PassId>& wanted() const { return wanted_; }
  /// Those wanted that are ready, in the order in which they were wanted.
  [[nodiscard]] std::vector<const StudiedPass*> ready() const;
  [[nodiscard]] bool busy() const { return opening_.running(); }

 signals:
  void changed();

 private:
  void openMissing();
  void dropChanged();
  struct Order;
  static StudiedPass open(const Order& order, const std::filesystem::path& indexes, const JobControl& job);

  const LineUp& lineUp_;
  std::vector<PassId> wanted_;
  std::map<PassId, StudiedPass> passes_;
  Job<std::vector<StudiedPass>> opening_;
};

}  // namespace fin::app
