// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/interruptible.h"

#include <atomic>
#include <chrono>
#include <csignal>

namespace fin::cli {
namespace {

/// Set by a signal, read by another thread.
std::atomic<bool> interrupted = false;
static_assert(std::atomic<bool>::is_always_lock_free);

}  // namespace

Interruptible::Interruptible() {
  std::signal(SIGINT, [](int) { interrupted = true; });
  std::signal(SIGTERM, [](int) { interrupted = true; });
  watch_ = std::jthread([this](const std::stop_token& over) {
    while (!over.stop_requested() && !interrupted) std::this_thread::sleep_for(std::chrono::milliseconds(20));
    if (interrupted) stop_.request_stop();
  });
}

}  // namespace fin::cli
