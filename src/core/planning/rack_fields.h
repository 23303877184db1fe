// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/planning/rack.h"
#include "core/units/result.h"

namespace fin {

/// One thing that is known of a model or of a rig on it, as text: what a table's column or a form's line
/// holds.
struct RackField {
  std::string name;                     ///< "head_g"; its unit, where it has one, at the end
  std::string unit;                     ///< "g"; empty where it has none
  std::vector<std::string> otherHeads;  ///< how else a column may be headed, in small letters without signs
  bool ofRig = false;
  /// Puts a text in; an empty one clears. BadRequest that names the field for what cannot be meant. A
  /// number may have any unit of its kind (typedAmount).
  std::function<Result<void>(Model&, Rig&, const std::string&)> set;
  std::function<std::string(const Model&, const Rig&)> get;
  std::vector<std::string> words = {};  ///< what it may be, where it is one of a few
  std::vector<Family> askedOf = {};  ///< families of which it is asked at once, and not only under “more”
};

const std::vector<RackField>& rackFields();

}  // namespace fin
