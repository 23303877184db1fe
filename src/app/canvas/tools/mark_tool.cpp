// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/canvas/tools/mark_tool.h"

#include <algorithm>

#include "app/phrases/words.h"

namespace fin::app {

MarkTool::MarkTool(PassController& controller, MarkName mark, QObject* parent)
    : PlacingTool(parent), controller_(controller), mark_(mark) {}

QString MarkTool::hint() const {
  return tr("Press on the %1; while you hold, the cross moves slowly. Let go to place it. Or arrow keys and "
            "Enter.")
      .arg(spokenName(mark_).toLower());
}

void MarkTool::placed(PixelPoint at) {
  const std::size_t frame = controller_.frame();
  controller_.edit(tr("Place the %1").arg(spokenName(mark_).toLower()), [&](PassRequest& request) {
    std::erase_if(request.marks, [&](const MarkSeed& s) { return s.name == mark_ && s.frame == frame; });
    request.marks.push_back({mark_, frame, at});
  });
  emit finished();
}

}  // namespace fin::app
