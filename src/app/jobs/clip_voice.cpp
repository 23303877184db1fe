// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/clip_voice.h"

#include <QAudioDevice>
#include <algorithm>
#include <cmath>

#include "app/jobs/sound_device.h"

namespace fin::app {
namespace {

constexpr double kLongest_s = 120.0;  ///< what is heard at once at most

}  // namespace

ClipVoice::ClipVoice(QObject* parent) : QObject(parent) {}

ClipVoice::~ClipVoice() = default;

QByteArray ClipVoice::slowed(std::span<const float> samples, double slower) {
  QByteArray out;
  if (samples.empty()) return out;
  const auto count = static_cast<std::size_t>(static_cast<double>(samples.size() - 1) * slower) + 1;
  out.resize(static_cast<qsizetype>(count * sizeof(qint16)));
  auto* to = reinterpret_cast<qint16*>(out.data());
  for (std::size_t i = 0; i < count; ++i) {
    const double at = static_cast<double>(i) / slower;
    const auto before = std::min(static_cast<std::size_t>(at), samples.size() - 1);
    const auto after = std::min(before + 1, samples.size() - 1);
    const double share = at - static_cast<double>(before);
    const double value =
        (1.0 - share) * static_cast<double>(samples[before]) + share * static_cast<double>(samples[after]);
    to[i] = static_cast<qint16>(std::lround(std::clamp(value, -1.0, 1.0) * 32767.0));
  }
  return out;
}

void ClipVoice::speak(std::shared_ptr<const Clip> clip, FrameStretch frames, double slower) {
  stop();
  const double from = clip->index().timeOf(frames.first).value();
  const double to = std::min(clip->index().timeOf(frames.last).value(), from + kLongest_s);
  decoding_.start(
      [clip, from, to](const JobControl& job) -> Result<std::vector<float>> {
        std::vector<float> samples;
        const auto done = decodeSound(
            *clip, {Hertz(kRate_Hz), Seconds(from), Seconds(to)},
            [&](std::span<const float> more, Seconds) {
              samples.insert(samples.end(), more.begin(), more.end());
            },
            job);
        if (!done) return tl::unexpected(done.error());
        return samples;
      },
      [this, slower](const Result<std::vector<float>>& samples) {
        if (!samples) {
          emit told(QString::fromStdString(samples.error().message));
          emit speakingChanged(false);
          return;
        }
        play(slowed(*samples, slower));
      });
  emit speakingChanged(true);
}

void ClipVoice::say(std::span<const float> samples, double slower) {
  stop();
  play(slowed(samples, slower));
  if (sink_) emit speakingChanged(true);
}

void ClipVoice::play(QByteArray samples) {
  QAudioFormat format;
  format.setSampleRate(kRate_Hz);
  format.setChannelCount(1);
  format.setSampleFormat(QAudioFormat::Int16);
  const QAudioDevice device = chosenSoundDevice();
  if (device.isNull()) {
    emit told(tr("There is no sound device to hear it by."));
    emit speakingChanged(false);
    return;
  }
  buffer_.setData(samples);
  buffer_.open(QIODevice::ReadOnly);
  sink_ = std::make_unique<QAudioSink>(device, format);
  connect(sink_.get(), &QAudioSink::stateChanged, this, [this](QAudio::State state) {
    if (state == QAudio::IdleState) QMetaObject::invokeMethod(this, &ClipVoice::stop, Qt::QueuedConnection);
  });
  sink_->start(&buffer_);
}

void ClipVoice::stop() {
  const bool was = speaking();
  decoding_.stop();
  if (sink_) {
    sink_->disconnect(this);
    sink_->stop();
    sink_.reset();
  }
  buffer_.close();
  if (was) emit speakingChanged(false);
}

}  // namespace fin::app
