// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <vector>

#include "app/canvas/tools/tool.h"
#include "core/calibration/line_finder.h"

namespace fin::app {

/// Straight edges found in the picture, of which a person takes one: by pressing near it, or by the up and
/// down keys and Enter.
class FoundLinesTool : public Tool {
  Q_OBJECT

 public:
  FoundLinesTool(std::vector<FoundLine> found, std::function<void(PixelLine)> taken,
                 QObject* parent = nullptr);
  [[nodiscard]] QString hint() const override;
  void hover(PixelPoint at) override;
  void press(PixelPoint at) override;
  void drag(PixelPoint) override {}
  void release(PixelPoint) override {}
  bool key(const QKeyEvent& event) override;
  void paint(QPainter& painter, const FootageView& view) const override;

 private:
  [[nodiscard]] std::size_t nearestTo(PixelPoint at) const;
  void choose(std::size_t line);
  void take();

  std::vector<FoundLine> found_;
  std::function<void(PixelLine)> taken_;
  std::size_t chosen_ = 0;
};

}  // namespace fin::app
