// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

#include "app/places/bench/quiet_bar.h"
#include "core/footage/clip_sound.h"

namespace fin::app {

/// How loud the clip is, on the footage's own time. Hidden for a clip without sound. Pressing or dragging in
/// it goes to that instant.
class SoundLane : public QWidget {
  Q_OBJECT

 public:
  /// The bar tells where a quiet stretch begins that is being said; it must outlive the lane.
  SoundLane(PassController& controller, const QuietBar& quiet, QWidget* parent = nullptr);
  [[nodiscard]] bool heard() const { return !level_.rms.empty(); }

 signals:
  void frameWanted(std::size_t frame);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;

 private:
  void listen();
  void takeRoom();
  void writeTimes(QPainter& painter, const QRectF& box) const;
  void shadeQuiet(QPainter& painter, const QRectF& box) const;
  void goTo(double x);
  [[nodiscard]] QRectF plot() const;
  [[nodiscard]] double length_s() const;  ///< on the clip's own clock

  PassController& controller_;
  const QuietBar& quiet_;
  std::shared_ptr<const Clip> clip_;
  SoundLevel level_;
  Job<SoundLevel> listening_;
  bool alone_ = false;  ///< of a pass that is read for its sound alone
};

}  // namespace fin::app
