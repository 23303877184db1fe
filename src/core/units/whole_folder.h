// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>

#include "core/units/result.h"

namespace fin {

/// A folder that is there whole or not at all: it is filled beside its place, and moved there by keep(). What
/// was filled is gone again where it is not kept. Only a place where nothing is, or an empty folder, is
/// taken.
class WholeFolder {
 public:
  /// NotWritable with the folder's name.
  static Result<WholeFolder> begin(const std::filesystem::path& folder);
  ~WholeFolder();
  WholeFolder(WholeFolder&& other) noexcept;
  WholeFolder& operator=(WholeFolder&&) = delete;

  /// Where it is filled.
  [[nodiscard]] const std::filesystem::path& part() const { return part_; }
  [[nodiscard]] Result<void> keep();

 private:
  WholeFolder(std::filesystem::path folder, std::filesystem::path part)
      : folder_(std::move(folder)), part_(std::move(part)) {}

  std::filesystem::path folder_;
  std::filesystem::path part_;  ///< empty once it was kept or moved on
};

}  // namespace fin
