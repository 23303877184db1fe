// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

#include "app/models/pass_desk.h"
#include "core/footage/clip_sound.h"

namespace fin::app {

/// How loud the clip is, on the footage's own time. Hidden for a clip without sound. Pressing or dragging in
/// it goes to that instant.
class SoundLane : public QWidget {
  Q_OBJECT

 public:
  explicit SoundLane(PassDesk& desk, QWidget* parent = nullptr);
  [[nodiscard]] bool heard() const { return !level_.rms.empty(); }

 signals:
  void frameWanted(std::size_t frame);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;

 private:
  void listen();
  void goTo(double x);
  [[nodiscard]] QRectF plot() const;
  [[nodiscard]] double length_s() const;  ///< on the clip's own clock

  PassDesk& desk_;
  std::shared_ptr<const Clip> clip_;
  SoundLevel level_;
  Background<Result<SoundLevel>> listening_;
};

}  // namespace fin::app
