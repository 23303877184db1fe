// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <functional>
#include <mutex>
#include <vector>

namespace fin::app {

/// Brings calls from other threads to the window's thread, in the order in which they were posted.
class Relay : public QObject {
  Q_OBJECT

 public:
  /// May be called on any thread.
  void post(std::function<void()> call);

 private:
  Q_INVOKABLE void drain();

  std::mutex mutex_;
  std::vector<std::function<void()>> calls_;
};

/// Must first be called on the window's thread; it lives as long as the program.
Relay& relay();

/// Runs it on a thread of its own. The program waits at its end for all that were started.
void startThread(std::function<void()> work);

}  // namespace fin::app
