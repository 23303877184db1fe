// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/signals/series.h"

namespace fin {

/// A series between its samples: straight from one to the next; the first or the last beyond them. There has
/// to be one. Pure; on any thread.
double valueAt(const Series& series, double t_s);

}  // namespace fin
