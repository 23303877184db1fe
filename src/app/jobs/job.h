// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QElapsedTimer>
#include <QFutureWatcher>
#include <QPromise>
#include <QThreadPool>
#include <QtConcurrent/QtConcurrentRun>
#include <functional>
#include <memory>
#include <stop_token>

#include "core/units/job_control.h"
#include "core/units/result.h"

namespace fin::app {

/// The threads that jobs run on. There are more than cores: a stopped job may still be ending while the next
/// one begins.
QThreadPool& jobThreads();

/// One piece of work at a time on another thread; for use by the window's thread, which never waits for it.
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
    stop_ = std::stop_source();
    watcher_ = new Watcher;
    Watcher* watcher = watcher_;
    QObject::connect(watcher, &Watcher::finished, watcher, [this, watcher, done = std::move(done)] {
      watcher->deleteLater();
      watcher_ = nullptr;
      const auto outcome = watcher->future().result();
      done(std::move(*outcome));
    });
    if (progress) {
      QElapsedTimer since;
      since.start();
      QObject::connect(watcher, &Watcher::progressValueChanged, watcher,
                       [since, progress = std::move(progress)](int thousandths) {
                         if (thousandths <= 0) return;
                         const double share = thousandths / 1000.0;
                         progress(share,
                                  static_cast<double>(since.elapsed()) / 1000.0 / share * (1.0 - share));
                       });
    }
    watcher->setFuture(QtConcurrent::run(&jobThreads(), &Job::carryOut, std::move(work), stop_.get_token()));
  }
  /// Asks the work to stop and forgets it.
  void stop() {
    if (watcher_ == nullptr) return;
    stop_.request_stop();
    watcher_->disconnect();
    watcher_->cancel();
    watcher_->deleteLater();
    watcher_ = nullptr;
  }
  [[nodiscard]] bool running() const { return watcher_ != nullptr; }

 private:
  using Outcome = std::shared_ptr<Result<T>>;
  using Watcher = QFutureWatcher<Outcome>;

  static void carryOut(QPromise<Outcome>& promise, const Work& work, const std::stop_token& stop) {
    promise.setProgressRange(0, 1000);
    const auto report = [&promise](double share) {
      promise.setProgressValue(static_cast<int>(1000.0 * share));
    };
    Result<T> outcome = tl::unexpected(Error{});
    try {
      outcome = work({stop, report});
    } catch (const std::exception& e) {
      outcome = failure(ErrorCode::Broken, std::string("This went wrong inside the program (") + e.what() +
                                               "). Nothing of it was kept.");
    }
    promise.addResult(std::make_shared<Result<T>>(std::move(outcome)));
  }

  Watcher* watcher_ = nullptr;
  std::stop_source stop_;
};

}  // namespace fin::app
