// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/claims.h"

namespace fin {

ClaimState stateOf(const Claim& claim, const std::optional<ReadRange>& read) {
  if (!read) return ClaimState::Untested;
  if ((claim.least && read->to < *claim.least) || (claim.most && read->from > *claim.most))
    return ClaimState::Broken;
  const bool within =
      (!claim.least || read->from >= *claim.least) && (!claim.most || read->to <= *claim.most);
  return within ? ClaimState::Kept : ClaimState::Undecided;
}

}  // namespace fin
