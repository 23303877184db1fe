// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QAudioSink>
#include <QBuffer>
#include <memory>
#include <span>

#include "app/jobs/background.h"
#include "core/footage/clip_sound.h"
#include "core/tracking/track.h"

namespace fin::app {

/// Lets a stretch of a clip be heard, as it was or slower (and lower). Nothing is made louder or softer.
class ClipVoice : public QObject {
  Q_OBJECT

 public:
  explicit ClipVoice(QObject* parent = nullptr);
  ~ClipVoice() override;

  void speak(std::shared_ptr<const Clip> clip, FrameStretch frames, double slower);
  void stop();
  [[nodiscard]] bool speaking() const { return decoding_.running() || sink_ != nullptr; }
  /// Samples of one channel, full scale 1, `slower` times as many; straight between them.
  static QByteArray slowed(std::span<const float> samples, double slower);

 signals:
  void speakingChanged(bool on);
  /// Why nothing is heard.
  void told(const QString& why);

 private:
  void play(QByteArray samples);

  Background<Result<std::vector<float>>> decoding_;
  QBuffer buffer_;
  std::unique_ptr<QAudioSink> sink_;
};

}  // namespace fin::app
