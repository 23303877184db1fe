// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/sound_device.h"

#include <QMediaDevices>

#include "app/ui/settings.h"

namespace fin::app {

QAudioDevice chosenSoundDevice() {
  const QByteArray wanted = Settings::all().soundDevice();
  for (const QAudioDevice& device : QMediaDevices::audioOutputs()) {
    if (!wanted.isEmpty() && device.id() == wanted) return device;
  }
  return QMediaDevices::defaultAudioOutput();
}

}  // namespace fin::app
