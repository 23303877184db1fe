// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QMetaObject>
#include <QObject>
#include <functional>
#include <memory>
#include <stop_token>
#include <thread>

namespace fin::app {

/// Runs one piece of work at a time on a thread of its own and hands its outcome to the window's thread. A
/// newer start, or stop(), makes the outcome of an older one void. `Outcome` must be movable.
template <class Outcome>
class Background : public QObject {
 public:
  using Work = std::function<Outcome(std::stop_token)>;
  using Done = std::function<void(Outcome)>;

  explicit Background(QObject* parent = nullptr) : QObject(parent) {}
  ~Background() override { stop(); }

  void start(Work work, Done done) {
    stop();
    running_ = true;
    const unsigned turn = turn_;
    thread_ =
        std::jthread([this, turn, work = std::move(work), done = std::move(done)](std::stop_token stop) {
          auto outcome = std::make_shared<Outcome>(work(stop));
          QMetaObject::invokeMethod(
              this,
              [this, turn, outcome, done] {
                if (turn != turn_) return;
                running_ = false;
                done(std::move(*outcome));
              },
              Qt::QueuedConnection);
        });
  }
  /// Asks the work to stop and waits until it has.
  void stop() {
    ++turn_;
    running_ = false;
    if (thread_.joinable()) {
      thread_.request_stop();
      thread_.join();
    }
  }
  [[nodiscard]] bool running() const { return running_; }

 private:
  std::jthread thread_;
  unsigned turn_ = 0;
  bool running_ = false;
};

}  // namespace fin::app
