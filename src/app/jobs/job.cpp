// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/job.h"

namespace fin::app {
namespace {

constexpr int kThreads = 16;

struct Threads {
  Threads() { pool.setMaxThreadCount(kThreads); }
  QThreadPool pool;  // waits for its threads when the program ends
};

}  // namespace

QThreadPool& jobThreads() {
  static Threads threads;
  return threads.pool;
}

}  // namespace fin::app
