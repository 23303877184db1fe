// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAudioSink>
#include <QIODevice>
#include <memory>

#include "core/planning/pacing.h"

namespace fin::app {

/// The beat as sound: short ticks at the cadence's own times, placed to the sample, so that they keep the
/// sound card's clock whatever the window does.
class TickSound : public QIODevice {
  Q_OBJECT

 public:
  explicit TickSound(QObject* parent = nullptr);
  ~TickSound() override;

  /// False where there is no sound device: the pacer is then to be seen only.
  bool begin(const Cadence& cadence);
  void end();
  /// Fills samples from a position on; for begin() and for tests.
  static void fill(const Cadence& cadence, int rate_Hz, qint64 from, qint16* to, qint64 samples);

 protected:
  qint64 readData(char* data, qint64 size) override;
  qint64 writeData(const char*, qint64) override { return -1; }

 private:
  Cadence cadence_;
  int rate_Hz_ = 48000;
  qint64 position_ = 0;
  std::unique_ptr<QAudioSink> sink_;
};

}  // namespace fin::app
