// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <string>

#include "core/rehearsal/rehearse.h"

namespace fin::test {

/// A folder of its own for one test, gone afterwards.
class TemporaryFolder {
 public:
  TemporaryFolder();
  ~TemporaryFolder();
  TemporaryFolder(const TemporaryFolder&) = delete;
  TemporaryFolder& operator=(const TemporaryFolder&) = delete;
  [[nodiscard]] const std::filesystem::path& path() const { return path_; }
  [[nodiscard]] std::filesystem::path operator/(const std::string& name) const { return path_ / name; }

 private:
  std::filesystem::path path_;
};

/// Small pictures, so that tests are quick: 480 × 270 at 0.8 px/mm. The lure crosses 560 mm of water.
RehearsalScene smallPull(unsigned seed = 1);
RehearsalScene smallFall(unsigned seed = 1);
/// Three twitches in 2.9 s.
RehearsalScene smallJerks(unsigned seed = 1);

/// Three hops off the bottom from the side, 1.2 s apart, 110 mm high; the tail kicks on the way down.
RehearsalScene smallHops(unsigned seed = 3);

void write(const std::filesystem::path& file, const std::string& text);
std::string slurp(const std::filesystem::path& file);

}  // namespace fin::test
