// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>

namespace fin::test {

/// While one lives, SQLite's files lie on a disk that is full after so many writes: from then on writing,
/// lengthening and syncing fail. One at a time.
class FullDisk {
 public:
  explicit FullDisk(std::size_t writesLeft);
  ~FullDisk();
  FullDisk(const FullDisk&) = delete;
  FullDisk& operator=(const FullDisk&) = delete;

  /// From now on. Files opened before the disk was put in place are not on it.
  static void fillAfter(std::size_t writesLeft);
  /// As much room as anybody wants.
  static void empty();
  /// Something was not written.
  [[nodiscard]] static bool refused();
};

}  // namespace fin::test
