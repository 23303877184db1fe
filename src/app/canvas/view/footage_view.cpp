// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/canvas/view/footage_view.h"

#include <QDragEnterEvent>
#include <QMimeData>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/phrases/words.h"
#include "app/ui/settings.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr double kZoomStep = 1.25;
constexpr double kMostZoom = 32.0;
constexpr int kLoupe_px = 176;  ///< side of the magnifier
constexpr double kLoupeZoom = 8.0;
constexpr std::size_t kTrailFrames = 240;
constexpr double kMarkRadius = 7.0;
constexpr double kGrabRadius = 10.0;

QString spokenLength(Millimetres length) {
  return spokenAmount(length.value(), "mm", 0, Settings::all().units());
}

void paintLabel(QPainter& painter, QPointF at, const QString& text) {
  painter.setFont(smallFont());
  const QRectF box = QRectF(painter.fontMetrics().boundingRect(text)).adjusted(-5, -2, 5, 2);
  const QRectF placed = box.translated(at - box.topLeft());
  painter.setPen(Qt::NoPen);
  painter.setBrush(QColor(30, 38, 44, 205));
  painter.drawRoundedRect(placed, 4, 4);
  painter.setPen(Qt::white);
  painter.drawText(placed, Qt::AlignCenter, text);
  painter.setBrush(Qt::NoBrush);
}

}  // namespace

FootageView::FootageView(PassController& controller, QWidget* parent)
    : QWidget(parent), controller_(controller) {
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAcceptDrops(true);
  setMinimumSize(320, 180);
  setAccessibleName(tr("Footage"));
  connect(&controller, &PassController::requestChanged, this, qOverload<>(&QWidget::update));
  connect(&Settings::all(), &Settings::unitsChanged, this, qOverload<>(&QWidget::update));
  connect(&controller, &PassController::resultChanged, this, qOverload<>(&QWidget::update));
}

void FootageView::showPicture(std::size_t frame, const QImage& picture) {
  const bool otherSize = picture.size() != size_;
  picture_ = picture;
  size_ = picture.size();
  reason_.clear();
  shownFrame_ = frame;
  if (otherSize || fitted_) applyFit();
  update();
}

void FootageView::showGlimpse(std::size_t frame, const QImage& small) {
  if (picture_.isNull() || frame == shownFrame_) return;
  picture_ = small;
  shownFrame_ = frame;
  update();
}

void FootageView::showReason(const QString& why) {
  picture_ = QImage();
  reason_ = why;
  update();
}

void FootageView::clear() {
  showReason({});
}

void FootageView::takeTool(std::unique_ptr<Tool> tool) {
  tool_ = std::move(tool);
  if (tool_) {
    connect(tool_.get(), &Tool::changed, this, [this] {
      update();
      emit toolChanged();
    });
    setCursor(Qt::BlankCursor);
    setFocus();
  } else {
    unsetCursor();
  }
  update();
  emit toolChanged();
}

void FootageView::dropTool() {
  if (tool_) tool_.release()->deleteLater();
  takeTool(nullptr);
}

void FootageView::fit() {
  fitted_ = true;
  applyFit();
  update();
}

void FootageView::applyFit() {
  if (picture_.isNull()) return;
  zoom_ =
      std::min(static_cast<double>(width()) / size_.width(), static_cast<double>(height()) / size_.height());
  offset_ = QPointF(0.5 * (width() - zoom_ * size_.width()), 0.5 * (height() - zoom_ * size_.height()));
}

void FootageView::zoomBy(double factor, QPointF about) {
  if (picture_.isNull()) return;
  const double least =
      std::min(static_cast<double>(width()) / size_.width(), static_cast<double>(height()) / size_.height());
  const double wanted = std::clamp(zoom_ * factor, least, kMostZoom);
  offset_ = about - (about - offset_) * (wanted / zoom_);
  zoom_ = wanted;
  fitted_ = zoom_ <= least;
  if (fitted_) applyFit();
  update();
}

// A pixel's centre is at whole numbers, so the picture's left edge is at −0.5.
QPointF FootageView::toView(PixelPoint at) const {
  return offset_ + QPointF(at.x_px + 0.5, at.y_px + 0.5) * zoom_;
}

PixelPoint FootageView::toPicture(QPointF at) const {
  const QPointF p = (at - offset_) / zoom_;
  return {p.x() - 0.5, p.y() - 0.5};
}

void FootageView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme().mat);
  painter.setRenderHint(QPainter::Antialiasing);
  if (picture_.isNull()) {
    painter.setPen(Qt::white);
    painter.drawText(rect().adjusted(40, 20, -40, -20), Qt::AlignCenter | Qt::TextWordWrap, reason_);
    return;
  }
  painter.setRenderHint(QPainter::SmoothPixmapTransform, zoom_ < 4.0);
  painter.drawImage(QRectF(offset_, QSizeF(size_) * zoom_), picture_);
  paintScale(painter);
  paintSquare(painter);
  paintLines(painter);
  paintHidden(painter);
  paintOutline(painter);
  paintMarks(painter);
  if (tool_) {
    tool_->paint(painter, *this);
    paintLoupe(painter);
    paintLabel(painter, QPointF(12, height() - 30), tool_->hint());
  }
  if (hasFocus()) {
    painter.setPen(QPen(theme().accent, 2));
    painter.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void FootageView::paintScale(QPainter& painter) const {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr || !pass->request.scale) return;
  const ScaleMark& scale = *pass->request.scale;
  const QPointF from = toView(scale.from);
  const QPointF to = toView(scale.to);
  const QLineF line(from, to);
  const QPointF tick =
      line.length() > 0.0 ? QPointF(-line.dy(), line.dx()) * (9.0 / line.length()) : QPointF();
  for (const auto& [colour, width] : {std::pair(QColor(Qt::white), 4.0), {theme().accent, 2.0}}) {
    painter.setPen(QPen(colour, width));
    painter.drawLine(line);
    painter.drawLine(from - tick, from + tick);
    painter.drawLine(to - tick, to + tick);
  }
  paintLabel(painter, line.center() + QPointF(-20, -26), spokenLength(scale.length));
}

void FootageView::paintSquare(QPainter& painter) const {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr || !pass->request.square) return;
  const SquareMark& square = *pass->request.square;
  QPolygonF sides;
  for (const PixelPoint corner : square.corners) sides << toView(corner);
  for (const auto& [colour, width] : {std::pair(QColor(Qt::white), 4.0), {theme().accent, 2.0}}) {
    painter.setPen(QPen(colour, width));
    painter.drawPolygon(sides);
  }
  const auto side = [&](int i, Millimetres length) {
    paintLabel(painter, 0.5 * (sides[i] + sides[i + 1]) + QPointF(-20, -26), spokenLength(length));
  };
  side(0, square.width);
  side(1, square.height);
}

void FootageView::paintLines(QPainter& painter) const {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return;
  const std::pair<const std::optional<PixelLine>&, QString> lines[] = {
      {pass->request.plumb, tr("plumb")},
      {pass->request.waterline, tr("waterline")},
      {pass->request.bottom, tr("bottom")}};
  for (const auto& [line, name] : lines) {
    if (!line) continue;
    const QLineF drawn(toView(line->from), toView(line->to));
    painter.setPen(QPen(Qt::white, 3.5));
    painter.drawLine(drawn);
    painter.setPen(QPen(theme().ink, 1.6, Qt::DashDotLine));
    painter.drawLine(drawn);
    paintLabel(painter, drawn.center() + QPointF(8, 6), name);
  }
}

void FootageView::paintTrail(QPainter& painter, const MarkTrack& mark, int colour) const {
  const PassResult& result = *controller_.result();
  const std::size_t first = result.track.firstFrame;
  if (shownFrame_ < first) return;
  const std::size_t now = std::min(shownFrame_ - first, mark.samples.size() - 1);
  QPainterPath path;
  bool down = false;
  for (std::size_t i = now > kTrailFrames ? now - kTrailFrames : 0; i <= now; ++i) {
    const MarkSample& s = mark.samples[i];
    const QPointF at = toView(s.at);
    if (s.seen && down) path.lineTo(at);
    if (s.seen && !down) path.moveTo(at);
    down = s.seen;
  }
  painter.setPen(QPen(markColour(colour), 1.6));
  painter.drawPath(path);
}

std::vector<FootageView::ShownMark> FootageView::shownMarks() const {
  std::vector<ShownMark> out;
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return out;
  for (const MarkSeed& seed : pass->request.marks) {
    if (seed.frame == shownFrame_) out.push_back({seed.name, seed.at, true});
  }
  if (controller_.result() == nullptr) return out;
  const Track& track = controller_.result()->track;
  if (shownFrame_ < track.firstFrame || shownFrame_ - track.firstFrame >= track.frameCount) return out;
  for (const MarkTrack& mark : track.marks) {
    const MarkSample& s = mark.samples[shownFrame_ - track.firstFrame];
    const bool said =
        std::any_of(out.begin(), out.end(), [&mark](const ShownMark& m) { return m.name == mark.name; });
    if (s.seen && !said) out.push_back({mark.name, s.at, false});
  }
  return out;
}

void FootageView::paintMarks(QPainter& painter) const {
  if (controller_.result() != nullptr) {
    for (const MarkTrack& mark : controller_.result()->track.marks)
      paintTrail(painter, mark, static_cast<int>(mark.name));
  }
  for (const ShownMark& mark : shownMarks()) {
    const QPointF p = toView(mark.at);
    const int colour = static_cast<int>(mark.name);
    painter.setPen(QPen(Qt::white, mark.said ? 4.5 : 3.5));
    painter.drawEllipse(p, kMarkRadius, kMarkRadius);
    painter.setPen(QPen(markColour(colour), mark.said ? 2.8 : 1.8));
    painter.drawEllipse(p, kMarkRadius, kMarkRadius);
    // By turns above and below, so that two ends of one body do not cover each other.
    paintLabel(painter, p + (colour % 2 == 0 ? QPointF(9, -30) : QPointF(-44, 13)), spokenName(mark.name));
  }
}

/// The silhouette as it was followed, and as the person drew it.
void FootageView::paintOutline(QPainter& painter) const {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return;
  const auto draw = [&](const std::vector<PixelPoint>& rim, const QPen& pen) {
    QPolygonF line;
    for (const PixelPoint p : rim) line << toView(p);
    painter.setPen(pen);
    painter.drawPolygon(line);
  };
  if (const auto& seed = pass->request.outline; seed && seed->frame == shownFrame_)
    draw(seed->polygon, QPen(Qt::white, 1.5, Qt::DashLine));
  if (controller_.result() == nullptr) return;
  const Track& track = controller_.result()->track;
  if (shownFrame_ < track.firstFrame || shownFrame_ - track.firstFrame >= track.outline.size()) return;
  for (const auto& rim : track.outline[shownFrame_ - track.firstFrame].contours) {
    draw(rim, QPen(Qt::white, 3.0));
    draw(rim, QPen(theme().accent, 1.4));
  }
}

void FootageView::paintHidden(QPainter& painter) const {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return;
  for (const HiddenRegion& region : pass->request.hidden) {
    if (shownFrame_ < region.firstFrame || shownFrame_ > region.lastFrame) continue;
    QPolygonF rim;
    for (const PixelPoint p : region.polygon) rim << toView(p);
    painter.setPen(QPen(Qt::white, 1.5));
    painter.setBrush(QBrush(QColor(30, 38, 44, 190), Qt::BDiagPattern));
    painter.drawPolygon(rim);
    painter.setBrush(Qt::NoBrush);
  }
}

/// A magnifier in the corner away from the aim: eight times, with the pixels to be seen.
void FootageView::paintLoupe(QPainter& painter) const {
  const auto aim = tool_->aim();
  if (!aim) return;
  const QPointF at = toView(*aim);
  const double x = at.x() < 0.5 * width() ? width() - kLoupe_px - 12.0 : 12.0;
  const QRectF box(x, 12.0, kLoupe_px, kLoupe_px);
  const double half = 0.5 * kLoupe_px / kLoupeZoom;
  painter.save();
  QPainterPath round;
  round.addRoundedRect(box, 10, 10);
  painter.setClipPath(round);
  painter.fillRect(box, theme().mat);
  painter.setRenderHint(QPainter::SmoothPixmapTransform, false);
  const double stored = static_cast<double>(picture_.width()) / size_.width();
  const QRectF from((aim->x_px + 0.5 - half) * stored, (aim->y_px + 0.5 - half) * stored, 2.0 * half * stored,
                    2.0 * half * stored);
  painter.drawImage(box, picture_, from);
  painter.setPen(QPen(QColor(255, 255, 255, 220), 1.0));
  painter.drawLine(QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y()));
  painter.drawLine(QPointF(box.center().x(), box.top()), QPointF(box.center().x(), box.bottom()));
  painter.restore();
  painter.setPen(QPen(theme().accent, 2));
  painter.drawRoundedRect(box, 10, 10);
  paintLabel(painter, box.bottomLeft() + QPointF(6, -22),
             tr("%1, %2 px").arg(aim->x_px, 0, 'f', 1).arg(aim->y_px, 0, 'f', 1));
}

void FootageView::resizeEvent(QResizeEvent*) {
  if (fitted_) applyFit();
}

void FootageView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  if (picture_.isNull()) return;
  if (!tool_ && event->button() == Qt::LeftButton) {
    for (const ShownMark& mark : shownMarks()) {
      const QPointF apart = toView(mark.at) - event->position();
      if (std::hypot(apart.x(), apart.y()) <= kGrabRadius) {
        emit markPressed(mark.name);
        break;
      }
    }
  }
  if (tool_ && event->button() == Qt::LeftButton) {
    tool_->press(toPicture(event->position()));
  } else {
    panFrom_ = event->position();
  }
}

void FootageView::mouseMoveEvent(QMouseEvent* event) {
  if (panFrom_) {
    offset_ += event->position() - *panFrom_;
    panFrom_ = event->position();
    fitted_ = false;
    update();
  } else if (tool_ && !picture_.isNull()) {
    const PixelPoint at = toPicture(event->position());
    event->buttons().testFlag(Qt::LeftButton) ? tool_->drag(at) : tool_->hover(at);
  }
}

void FootageView::mouseReleaseEvent(QMouseEvent* event) {
  if (panFrom_) {
    panFrom_.reset();
  } else if (tool_ && event->button() == Qt::LeftButton) {
    tool_->release(toPicture(event->position()));
  }
}

void FootageView::nearer() {
  zoomBy(kZoomStep, QPointF(rect().center()));
}

void FootageView::further() {
  zoomBy(1.0 / kZoomStep, QPointF(rect().center()));
}

void FootageView::wheelEvent(QWheelEvent* event) {
  zoomBy(std::pow(kZoomStep, event->angleDelta().y() / 120.0), event->position());
}

void FootageView::keyPressEvent(QKeyEvent* event) {
  if (tool_ && event->key() == Qt::Key_Escape) return dropTool();
  if (tool_ && !tool_->aim() && !picture_.isNull()) tool_->hover(toPicture(QPointF(rect().center())));
  if (tool_ && tool_->key(*event)) return;
  QWidget::keyPressEvent(event);
}

void FootageView::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void FootageView::dropEvent(QDropEvent* event) {
  const auto urls = event->mimeData()->urls();
  if (!urls.isEmpty() && urls.front().isLocalFile()) emit fileDropped(urls.front().toLocalFile());
}

}  // namespace fin::app
