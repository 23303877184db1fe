// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>

#include "core/measuring/measure.h"
#include "core/measuring/measurement.h"

namespace fin {

/// `agile-fin-readings/1` as JSON, with what it was made from: the pass and the file's fingerprint.
std::string writeReadings(const PassRequest& request, const PassResult& result,
                          const ClipFingerprint& fingerprint);

/// What a file of readings says that it was made from, without track and readings; none where it does not say
/// so, or is no such file.
std::optional<Measurement> madeFrom(const std::string& readings);

/// The track as CSV: a row a frame, dot decimals whatever the locale, LF.
std::string writeTrack(const PassResult& result);

}  // namespace fin
