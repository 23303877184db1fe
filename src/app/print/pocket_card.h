// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

#include "core/season/pocket_card.h"

namespace fin::app {

/// A card for the pocket, A6, as PDF; speeds in all units that anglers use. NotWritable with the file's name.
Result<void> printPocketCard(const PocketCard& card, const QString& title, const QString& file);

}  // namespace fin::app
