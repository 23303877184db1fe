// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/rehearsal/lure.h"

namespace fin {

/// What the demo's models look like in the rehearsal tank.
LureBuild skrellBuild();
LureBuild pellowBuild();
LureBuild vintoBuild();
LureBuild mirkBuild();
LureBuild obligBuild();
LureBuild oblagBuild();
LureBuild tavverBuild();
LureBuild haspBuild();

/// Of a bladed bait: its skirt streams behind it, and opens when it stops; without the trailer.
LureBuild withSkirtOpen(LureBuild build);

}  // namespace fin
