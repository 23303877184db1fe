// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/tick_sound.h"

#include <QAudioDevice>
#include <cmath>
#include <numbers>

#include "app/jobs/sound_device.h"

namespace fin::app {
namespace {

constexpr double kTone_Hz = 1250.0;
constexpr double kFirstTone_Hz = 1700.0;  ///< of the first twitch in a group
constexpr double kDecay_s = 0.018;
constexpr double kTick_s = 0.09;
constexpr double kLoudness = 0.6 * 32767.0;

}  // namespace

TickSound::TickSound(QObject* parent) : QIODevice(parent) {}

TickSound::~TickSound() {
  end();
}

bool TickSound::begin(const Cadence& cadence) {
  end();
  const QAudioDevice device = chosenSoundDevice();
  if (device.isNull()) return false;
  QAudioFormat format;
  format.setSampleRate(rate_Hz_);
  format.setChannelCount(1);
  format.setSampleFormat(QAudioFormat::Int16);
  if (!device.isFormatSupported(format)) return false;
  cadence_ = cadence;
  position_ = 0;
  open(QIODevice::ReadOnly);
  sink_ = std::make_unique<QAudioSink>(device, format);
  sink_->start(this);
  return sink_->error() == QAudio::NoError;
}

void TickSound::end() {
  if (sink_) sink_->stop();
  sink_.reset();
  close();
}

void TickSound::fill(const Cadence& cadence, int rate_Hz, qint64 from, qint16* to, qint64 samples) {
  for (qint64 i = 0; i < samples; ++i) {
    const double t = static_cast<double>(from + i) / rate_Hz;
    const std::size_t next = cadence.beatFrom(Seconds(t + 1e-9));
    const std::size_t beat = next > 0 ? next - 1 : 0;
    const double since = t - cadence.beat(beat).value();
    if (since < 0.0 || since > kTick_s) {
      to[i] = 0;
      continue;
    }
    const double tone = beat % static_cast<std::size_t>(cadence.twitches) == 0 ? kFirstTone_Hz : kTone_Hz;
    to[i] = static_cast<qint16>(kLoudness * std::exp(-since / kDecay_s) *
                                std::sin(2.0 * std::numbers::pi * tone * since));
  }
}

qint64 TickSound::readData(char* data, qint64 size) {
  const qint64 samples = size / 2;
  fill(cadence_, rate_Hz_, position_, reinterpret_cast<qint16*>(data), samples);
  position_ += samples;
  return 2 * samples;
}

}  // namespace fin::app
