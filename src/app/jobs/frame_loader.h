// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <QObject>
#include <condition_variable>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <thread>

#include "core/footage/clip.h"

namespace fin::app {

/// Decodes the frames that the window asks for, on a thread of its own. Only the latest wish counts; between
/// wishes it decodes on in the direction of travel, so that the next step finds its frame ready. Small copies
/// of what was decoded are kept: a wish gets the nearest of them at once, and its own frame when the hand
/// rests.
class FrameLoader : public QObject {
  Q_OBJECT

 public:
  explicit FrameLoader(QObject* parent = nullptr);
  ~FrameLoader() override;

  /// Null for no clip. Frames of an earlier clip are not delivered any more.
  void setClip(std::shared_ptr<const Clip> clip);
  void request(std::size_t frame);

 signals:
  /// At once and small: the nearest frame there is, in place of one that takes longer.
  void glimpsed(std::size_t frame, const QImage& picture);
  void loaded(std::size_t frame, const QImage& picture);
  void failed(std::size_t frame, const QString& why);

 private:
  void run(const std::stop_token& stop);
  void deliver(unsigned turn, std::size_t frame, const Result<Picture>& picture);
  [[nodiscard]] bool wishWaits(unsigned turn);
  void rememberGlimpse(std::size_t frame, const Picture& picture);

  std::mutex mutex_;
  std::condition_variable_any wake_;
  std::shared_ptr<const Clip> clip_;
  std::optional<std::size_t> wish_;
  std::map<std::size_t, QImage> glimpses_;
  unsigned turn_ = 0;
  std::jthread thread_;  // last: it uses all of the above
};

}  // namespace fin::app
