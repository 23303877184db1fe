// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/models/pass_desk.h"
#include "app/tools/placing_tool.h"

namespace fin::app {

/// The two ends of a known length, one after the other.
class RulerTool : public PlacingTool {
  Q_OBJECT

 public:
  /// `length` is what the person says is between the ends.
  RulerTool(PassDesk& desk, Millimetres length, QObject* parent);
  [[nodiscard]] QString hint() const override;
  void paint(QPainter& painter, const FootageView& view) const override;

 protected:
  void placed(PixelPoint at) override;

 private:
  PassDesk& desk_;
  Millimetres length_;
  std::optional<PixelPoint> from_;
};

}  // namespace fin::app
