// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <deque>
#include <map>

#include "app/controllers/pass_controller.h"
#include "core/measuring/find_marks.h"

namespace fin::app {

/// How much is done for a pass that waits in the queue.
enum class Depth {
  Read,    ///< only what needs no following
  Follow,  ///< its marks are followed where that is needed
  Find     ///< the lure is found too, where nobody placed a mark
};

/// Measures passes that do not lie on the bench, one after the other in the background: each as the log holds
/// it when its turn comes. What was changed meanwhile is not overwritten. A pass whose marks the program
/// found waits for a look (LoggedPass::finding), also where it found none. For the window's thread.
class MeasuringQueue : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive it.
  MeasuringQueue(Log& log, PassController& passes, QObject* parent = nullptr);

  void add(const std::vector<PassId>& passes, Depth depth);
  void stop();
  [[nodiscard]] std::size_t left() const { return waiting_.size() + (measuring_.running() ? 1 : 0); }
  /// Of those that were added since the queue was last empty.
  [[nodiscard]] std::size_t done() const { return done_; }
  /// By the time that those before took; none before the first is done.
  [[nodiscard]] std::optional<double> left_s() const;
  /// Passes in whose clips nobody placed a mark, and the program did not look yet.
  [[nodiscard]] std::vector<PassId> unmarked() const;

 signals:
  void changed();     ///< how many are left
  void progressed();  ///< how far the one at hand is
  /// The readings of a pass before and after.
  void measured(PassId pass, const ReadingSet& before, const ReadingSet& after);
  void told(const QString& message, bool trouble);

 private:
  struct Waiting {
    PassId id;
    Depth depth = Depth::Read;
  };
  /// How a lure looks in a pass as it was then; null where that could not be told.
  struct Look {
    PassRequest from;
    std::shared_ptr<const LureLook> look;
  };
  /// What became of a pass: nothing measured where nothing was found.
  struct Outcome {
    PassRequest request;
    std::optional<Finding> finding;
    std::shared_ptr<const Measurement> measurement;
    std::optional<Look> learnt;
  };
  struct Known {
    std::optional<PassRequest> alike;  ///< an earlier pass of the model that a person placed or took
    KnownLure lure;
  };
  static Result<Outcome> work(MeasuringOrder order, Depth depth, Known known,
                              const std::filesystem::path& indexes, const JobControl& job);
  void next();
  void begin(const Waiting& waiting);
  void keep(const LoggedPass& pass, const ReadingSet& before, Result<Outcome> outcome);
  [[nodiscard]] Known knownOf(const LoggedPass& pass) const;
  void takeKeptCalibration(const LoggedPass& pass, PassRequest& request) const;

  Log& log_;
  PassController& passes_;
  std::deque<Waiting> waiting_;
  std::optional<PassId> atHand_;
  Job<Outcome> measuring_;
  std::map<std::pair<std::string, View>, Look> looks_;  ///< by rig, this sitting
  std::size_t done_ = 0;
  double share_ = 0.0;  ///< of the one at hand
  QElapsedTimer since_;
};

}  // namespace fin::app
