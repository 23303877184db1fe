// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/units/result.h"

namespace fin {

/// A version of a row that merging kept aside: it and the one that stands differ.
struct KeptVersion {
  std::int64_t id = 0;
  std::string kind;  ///< "model", "rig", "pass", …
  std::string name;  ///< as it stands now
  /// What differs: a word for it, as it stands, as it was kept.
  struct Difference {
    std::string what;
    std::string here;
    std::string kept;
  };
  std::vector<Difference> differences;
  std::string editor;  ///< of the kept one; empty where it was not said
  double edited_s = 0.0;
};
/// Those that nobody has decided on. Errors: as Log.
Result<std::vector<KeptVersion>> keptVersions(const std::filesystem::path& log);
/// Puts the kept version in place of the one that stands, which is kept aside in turn; or leaves it, for
/// good.
Result<void> decideOn(const std::filesystem::path& log, std::int64_t version, bool takeIt);

}  // namespace fin
