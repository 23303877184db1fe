// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QKeyEvent>
#include <QObject>
#include <QPainter>
#include <optional>

#include "core/units/points.h"

namespace fin::app {

class FootageView;

/// One mouse mode on the footage. Places are in the picture's own pixels.
class Tool : public QObject {
  Q_OBJECT

 public:
  explicit Tool(QObject* parent = nullptr) : QObject(parent) {}

  /// What to do now, in a sentence.
  [[nodiscard]] virtual QString hint() const = 0;
  virtual void hover(PixelPoint) {}
  virtual void press(PixelPoint at) = 0;
  virtual void drag(PixelPoint at) = 0;
  virtual void release(PixelPoint at) = 0;
  /// True when the key was used.
  virtual bool key(const QKeyEvent&) { return false; }
  virtual void paint(QPainter&, const FootageView&) const {}
  /// Where a magnifier should look; none for tools that place nothing.
  [[nodiscard]] virtual std::optional<PixelPoint> aim() const { return std::nullopt; }

 signals:
  void changed();   ///< what it paints or says
  void finished();  ///< nothing is left to do
};

}  // namespace fin::app
