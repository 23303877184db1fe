// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <vector>

#include "core/footage/clip.h"
#include "core/measuring/pass_request.h"
#include "core/tracking/finding/find_lure.h"

namespace fin {

/// What is known of the lure beside its clip.
struct KnownLure {
  std::shared_ptr<const LureLook> look;  ///< null where it was not seen before
  std::optional<Millimetres> length;     ///< of the whole body, to a few per cent
};

/// A pass with the marks that were found in its clip, in place of any that it had.
struct FoundPass {
  PassRequest request;
  std::vector<FoundMark> found;
};

/// Finds the lure in a clip in which nobody pressed anything (find_lure.h); an outline too where the
/// protocol lives by one (a skirt, a still) and none is drawn. Where nothing says how large things are, the
/// known length does, by the part of the body that lies between nose and tail, to 7 %. Errors: Lost, with
/// what to do instead, where nothing can be found: nothing moves, the lure comes at the camera; Cancelled;
/// Unreadable; BadRequest for a window beyond the clip.
Result<FoundPass> findMarks(PassRequest request, const std::shared_ptr<const Clip>& clip,
                            const KnownLure& known = {}, const JobControl& job = {});

/// What the lure of a pass looks like that has its marks. Errors as openClip and lookOf.
Result<std::shared_ptr<const LureLook>> lookOfPass(const PassRequest& pass, const JobControl& job = {});

}  // namespace fin
