// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <vector>

#include "app/print/report.h"
#include "core/units/result.h"

namespace fin::app {

/// One rig as one picture for a phone, 1080 × 1350: the lure large, six readings with their ±, what it is
/// for, and whether it was graded. `day` and `caveat` stand at its foot. For the window's thread.
QImage rigCard(const ReportRig& rig, const QString& day, const QString& caveat);

/// A card of each rig as PNG into a folder that is there whole or not at all; how many. Errors as
/// WholeFolder, and NotWritable.
Result<std::size_t> writeRigCards(const Report& report, const QString& folder);

}  // namespace fin::app
