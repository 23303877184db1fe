// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <atomic>
#include <chrono>
#include <exception>
#include <functional>
#include <memory>
#include <mutex>
#include <optional>
#include <stop_token>

#include "app/jobs/relay.h"
#include "core/units/job_control.h"
#include "core/units/result.h"

namespace fin::app {

/// One piece of work at a time on a thread of its own; for use by the window's thread, which never waits for
/// it.
///
/// `Work` must hold all it needs by value, as it may outlive whoever started it by the moment that it takes
/// to stop. A newer start, stop() or the job's end makes the outcome of an older one void: neither `done` nor
/// `progress` is called for it any more. An exception in the work comes as the error Broken.
template <class T>
class Job {
 public:
  using Work = std::function<Result<T>(const JobControl&)>;
  using Done = std::function<void(Result<T>)>;
  using Progress = std::function<void(double share, double left_s)>;

  Job() = default;
  ~Job() { stop(); }
  Job(const Job&) = delete;
  Job& operator=(const Job&) = delete;

  void start(Work work, Done done, Progress progress = {}) {
    stop();
    run_ = std::make_shared<Run>(Run{this, std::move(done), std::move(progress)});
    shared_ = std::make_shared<Shared>();
    startThread([work = std::move(work), shared = shared_, run = std::weak_ptr(run_)] {
      carryOut(work, *shared, [&shared, &run](void (*what)(Shared&, Run&)) {
        relay().post([shared, run, what] {
          if (const auto here = run.lock()) what(*shared, *here);  // else it was stopped
        });
      });
    });
  }
  /// Asks the work to stop and forgets it.
  void stop() {
    if (shared_) shared_->stop.request_stop();
    shared_.reset();
    run_.reset();
  }
  [[nodiscard]] bool running() const { return run_ != nullptr; }

 private:
  using Clock = std::chrono::steady_clock;
  static constexpr auto kBetweenTellings = std::chrono::milliseconds(50);

  /// What the window's thread has of one start; it is there as long as its outcome is wanted.
  struct Run {
    Job* job;
    Done done;
    Progress progress;
    Clock::time_point begun = Clock::now();
  };
  /// What both threads have of it.
  struct Shared {
    std::stop_source stop;
    std::atomic<double> share = 0.0;
    std::mutex mutex;
    std::optional<Result<T>> outcome;
  };

  template <class Tell>
  static void carryOut(const Work& work, Shared& shared, const Tell& tell) {
    const auto report = [&, last = Clock::now()](double share) mutable {
      const auto now = Clock::now();
      if (now - last < kBetweenTellings) return;
      last = now;
      shared.share = share;
      tell(&Job::tellProgress);
    };
    Result<T> outcome = tl::unexpected(Error{});
    try {
      outcome = work({shared.stop.get_token(), report});
    } catch (const std::exception& e) {
      outcome = failure(ErrorCode::Broken, std::string("This went wrong inside the program (") + e.what() +
                                               "). Nothing of it was kept.");
    }
    {
      const std::lock_guard lock(shared.mutex);
      shared.outcome = std::move(outcome);
    }
    tell(&Job::finish);
  }

  static void tellProgress(Shared& shared, Run& run) {
    const double share = shared.share;
    if (!run.progress || share <= 0.0) return;
    const double spent_s = std::chrono::duration<double>(Clock::now() - run.begun).count();
    run.progress(share, spent_s / share * (1.0 - share));
  }

  /// The job is free for the next start before anybody is told.
  static void finish(Shared& shared, Run& run) {
    const Done done = std::move(run.done);
    Job& job = *run.job;
    job.shared_.reset();
    job.run_.reset();
    std::unique_lock lock(shared.mutex);
    Result<T> outcome = std::move(*shared.outcome);
    lock.unlock();
    done(std::move(outcome));
  }

  std::shared_ptr<Run> run_;
  std::shared_ptr<Shared> shared_;
};

}  // namespace fin::app
