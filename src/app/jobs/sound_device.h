// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAudioDevice>

namespace fin::app {

/// The one that the settings name, if it is there; else the system's. Null where there is none.
QAudioDevice chosenSoundDevice();

}  // namespace fin::app
