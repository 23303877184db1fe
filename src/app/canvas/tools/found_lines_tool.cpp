// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/canvas/tools/found_lines_tool.h"

#include <algorithm>
#include <cmath>

#include "app/canvas/view/footage_view.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

double distance_px(const PixelLine& line, PixelPoint at) {
  const PixelPoint d = line.to - line.from;
  const PixelPoint off = at - line.from;
  return std::abs(d.x_px * off.y_px - d.y_px * off.x_px) / length(d).value();
}

}  // namespace

FoundLinesTool::FoundLinesTool(std::vector<FoundLine> found, std::function<void(PixelLine)> taken,
                               QObject* parent)
    : Tool(parent), found_(std::move(found)), taken_(std::move(taken)) {}

QString FoundLinesTool::hint() const {
  if (found_.empty())
    return tr("No straight edge runs through the picture here. Draw the line by hand. Esc.");
  return tr("%1 of %2, an edge along %3 % of it. Press on the right one; or up, down and Enter.")
      .arg(chosen_ + 1)
      .arg(found_.size())
      .arg(100.0 * found_[chosen_].support, 0, 'f', 0);
}

std::size_t FoundLinesTool::nearestTo(PixelPoint at) const {
  const auto nearest =
      std::min_element(found_.begin(), found_.end(), [at](const FoundLine& a, const FoundLine& b) {
        return distance_px(a.line, at) < distance_px(b.line, at);
      });
  return static_cast<std::size_t>(nearest - found_.begin());
}

void FoundLinesTool::choose(std::size_t line) {
  chosen_ = line;
  emit changed();
}

void FoundLinesTool::hover(PixelPoint at) {
  if (!found_.empty()) choose(nearestTo(at));
}

void FoundLinesTool::press(PixelPoint at) {
  if (found_.empty()) return;
  choose(nearestTo(at));
  take();
}

void FoundLinesTool::take() {
  taken_(found_[chosen_].line);
  emit finished();
}

bool FoundLinesTool::key(const QKeyEvent& event) {
  if (found_.empty()) return false;
  switch (event.key()) {
    case Qt::Key_Up:
      choose((chosen_ + found_.size() - 1) % found_.size());
      return true;
    case Qt::Key_Down:
      choose((chosen_ + 1) % found_.size());
      return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      take();
      return true;
    default:
      return false;
  }
}

void FoundLinesTool::paint(QPainter& painter, const FootageView& view) const {
  for (std::size_t i = 0; i < found_.size(); ++i) {
    const QLineF line(view.toView(found_[i].line.from), view.toView(found_[i].line.to));
    painter.setPen(QPen(Qt::white, i == chosen_ ? 5.0 : 2.5));
    painter.drawLine(line);
    painter.setPen(QPen(i == chosen_ ? theme().accent : theme().ink, i == chosen_ ? 3.0 : 1.2,
                        i == chosen_ ? Qt::SolidLine : Qt::DashLine));
    painter.drawLine(line);
  }
}

}  // namespace fin::app
