// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <QObject>
#include <memory>

#include "core/footage/clip.h"

namespace fin::app {

/// Decodes the frames that the window asks for, on a thread of its own. Only the latest wish counts; between
/// wishes it decodes on in the direction of travel, so that the next step finds its frame ready. Small copies
/// of what was decoded are kept: a wish gets the nearest of them at once, and its own frame when the hand
/// rests. For the window's thread, which never waits: also not when the loader goes, whose thread may then
/// decode a frame to its end.
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
  struct Shared;
  struct Outcome;
  static void run(Shared& shared);
  void deliver(const Outcome& outcome);

  std::shared_ptr<Shared> shared_;  ///< with the thread, which ends by itself when the loader is gone
};

}  // namespace fin::app
