// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <stop_token>
#include <thread>

namespace fin::cli {

/// While it lives, Ctrl+C and being asked to end stop the work instead of the program. One at a time.
class Interruptible {
 public:
  Interruptible();

  [[nodiscard]] std::stop_token token() const { return stop_.get_token(); }

 private:
  std::stop_source stop_;
  std::jthread watch_;  ///< a signal may only set a flag; this passes it on
};

}  // namespace fin::cli
