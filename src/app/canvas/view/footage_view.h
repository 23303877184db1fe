// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QImage>
#include <QWidget>
#include <memory>

#include "app/canvas/tools/tool.h"
#include "app/controllers/pass_controller.h"

namespace fin::app {

/// The footage of the pass on the bench, with what was said and followed drawn over it. Wheel or + and − zoom
/// about the pointer; dragging moves the picture while no tool is in hand.
class FootageView : public QWidget {
  Q_OBJECT

 public:
  FootageView(PassController& controller, QWidget* parent = nullptr);

  /// Shows a decoded frame; a null picture with a reason where there is none.
  void showPicture(std::size_t frame, const QImage& picture);
  /// A small copy of a frame nearby, until the one that is wanted comes. Only where a picture is shown
  /// already.
  void showGlimpse(std::size_t frame, const QImage& small);
  void showReason(const QString& why);
  void clear();

  void takeTool(std::unique_ptr<Tool> tool);
  void dropTool();
  [[nodiscard]] Tool* tool() const { return tool_.get(); }

  void fit();
  void nearer();
  void further();
  void zoomBy(double factor, QPointF about);
  [[nodiscard]] QPointF toView(PixelPoint at) const;
  [[nodiscard]] PixelPoint toPicture(QPointF at) const;
  [[nodiscard]] std::size_t shownFrame() const { return shownFrame_; }
  [[nodiscard]] const QImage& picture() const { return picture_; }
  [[nodiscard]] bool hasPicture() const { return !picture_.isNull(); }
  [[nodiscard]] QSize sizeHint() const override { return {960, 540}; }

 signals:
  void toolChanged();
  void fileDropped(const QString& file);
  /// A mark was pressed on while no tool was in hand; whoever hears it may hand over a tool for it.
  void markPressed(MarkName mark);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  void paintScale(QPainter& painter) const;
  void paintLines(QPainter& painter) const;
  void paintSquare(QPainter& painter) const;
  void paintMarks(QPainter& painter) const;
  void paintOutline(QPainter& painter) const;
  void paintHidden(QPainter& painter) const;
  /// The marks in the frame shown: as said where that was, else as followed.
  struct ShownMark {
    MarkName name;
    PixelPoint at;
    bool said;
  };
  [[nodiscard]] std::vector<ShownMark> shownMarks() const;
  void paintTrail(QPainter& painter, const MarkTrack& mark, int colour) const;
  void paintLoupe(QPainter& painter) const;
  void applyFit();

  PassController& controller_;
  std::unique_ptr<Tool> tool_;
  QImage picture_;
  QSize size_;  ///< of the clip's pictures; a glimpse has fewer pixels
  QString reason_;
  std::size_t shownFrame_ = 0;
  double zoom_ = 1.0;
  QPointF offset_;
  bool fitted_ = true;
  std::optional<QPointF> panFrom_;
};

}  // namespace fin::app
