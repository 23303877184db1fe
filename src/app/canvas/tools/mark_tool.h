// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/canvas/tools/placing_tool.h"
#include "app/controllers/pass_controller.h"

namespace fin::app {

/// Says where one mark of the lure is in the frame that is shown. A second saying of the same mark in another
/// frame is a correction.
class MarkTool : public PlacingTool {
  Q_OBJECT

 public:
  MarkTool(PassController& controller, MarkName mark, QObject* parent);
  [[nodiscard]] QString hint() const override;
  [[nodiscard]] MarkName mark() const { return mark_; }

 protected:
  void placed(PixelPoint at) override;

 private:
  PassController& controller_;
  MarkName mark_;
};

}  // namespace fin::app
