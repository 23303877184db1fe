// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAudioSink>
#include <QBuffer>
#include <memory>
#include <span>

#include "app/jobs/job.h"
#include "core/footage/clip_sound.h"
#include "core/tracking/track.h"

namespace fin::app {

/// Lets a sound be heard, as it was or slower (and lower). Nothing is made louder or softer here.
class ClipVoice : public QObject {
  Q_OBJECT

 public:
  explicit ClipVoice(QObject* parent = nullptr);
  ~ClipVoice() override;

  void speak(std::shared_ptr<const Clip> clip, FrameStretch frames, double slower);
  /// One channel at kRate_Hz.
  void say(std::span<const float> samples, double slower);
  void stop();
  [[nodiscard]] bool speaking() const { return decoding_.running() || sink_ != nullptr; }
  /// Samples of one channel, full scale 1, `slower` times as many; straight between them.
  static QByteArray slowed(std::span<const float> samples, double slower);

  static constexpr int kRate_Hz = 48000;

 signals:
  void speakingChanged(bool on);
  /// Why nothing is heard.
  void told(const QString& why);

 private:
  void play(QByteArray samples);

  Job<std::vector<float>> decoding_;
  QBuffer buffer_;
  std::unique_ptr<QAudioSink> sink_;
};

}  // namespace fin::app
