// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/relay.h"

#include <QMetaObject>
#include <condition_variable>
#include <thread>
#include <utility>

namespace fin::app {
namespace {

/// How many threads run; at the program's end they are waited for.
class Running {
 public:
  ~Running() {
    std::unique_lock lock(mutex_);
    none_.wait(lock, [this] { return count_ == 0; });
  }
  void add(int change) {
    const std::lock_guard lock(mutex_);
    count_ += change;
    if (count_ == 0) none_.notify_all();
  }

 private:
  std::mutex mutex_;
  std::condition_variable none_;
  int count_ = 0;
};

Running& running() {
  static Running all;
  return all;
}

}  // namespace

void Relay::post(std::function<void()> call) {
  {
    const std::lock_guard lock(mutex_);
    calls_.push_back(std::move(call));
  }
  QMetaObject::invokeMethod(this, "drain", Qt::QueuedConnection);
}

void Relay::drain() {
  std::vector<std::function<void()>> calls;
  {
    const std::lock_guard lock(mutex_);
    calls = std::exchange(calls_, {});
  }
  for (const auto& call : calls) call();
}

Relay& relay() {
  static auto* const whole = new Relay;  // never destroyed: a thread may still post to it at the end
  return *whole;
}

void startThread(std::function<void()> work) {
  (void)relay();  // belongs to the window's thread, which is here
  running().add(1);
  std::thread([work = std::move(work)]() mutable {
    work();
    work = nullptr;  // what it held is gone before it counts as ended
    running().add(-1);
  }).detach();
}

}  // namespace fin::app
