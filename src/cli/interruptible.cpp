// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/interruptible.h"

#include <chrono>
#include <csignal>

namespace fin::cli {
namespace {

volatile std::sig_atomic_t interrupted = 0;

}  // namespace

Interruptible::Interruptible() {
  std::signal(SIGINT, [](int) { interrupted = 1; });
  std::signal(SIGTERM, [](int) { interrupted = 1; });
  watch_ = std::jthread([this](const std::stop_token& over) {
    while (!over.stop_requested() && interrupted == 0)
      std::this_thread::sleep_for(std::chrono::milliseconds(20));
    if (interrupted != 0) stop_.request_stop();
  });
}

}  // namespace fin::cli
