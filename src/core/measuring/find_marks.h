// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <vector>

#include "core/footage/clip.h"
#include "core/measuring/pass_request.h"
#include "core/tracking/finding/find_lure.h"

namespace fin {

/// A pass with the marks that were found in its clip, in place of any that it had.
struct FoundPass {
  PassRequest request;
  std::vector<FoundMark> found;
};

/// Finds the lure in a clip in which nobody pressed anything (find_lure.h); an outline too where the
/// protocol's readings need one and none is drawn. Errors: Lost, with what to do instead, where nothing can
/// be found: nothing moves, the camera moves along, the lure comes at the camera; Cancelled; Unreadable;
/// BadRequest for a window beyond the clip.
Result<FoundPass> findMarks(PassRequest request, const std::shared_ptr<const Clip>& clip,
                            const JobControl& job = {});

}  // namespace fin
