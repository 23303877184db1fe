// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <stop_token>

namespace fin {

/// How a long piece of work is watched and stopped. `progress` gets 0 … 1 on the caller's thread.
struct JobControl {
  std::stop_token stop = {};
  std::function<void(double)> progress = {};

  [[nodiscard]] bool cancelled() const { return stop.stop_requested(); }
  void report(double share) const {
    if (progress) progress(share);
  }
};

/// A job that is one part of another: its progress fills from … to of the whole's.
inline JobControl partOf(const JobControl& whole, double from, double to) {
  return {whole.stop, [&whole, from, to](double share) { whole.report(from + share * (to - from)); }};
}

}  // namespace fin
