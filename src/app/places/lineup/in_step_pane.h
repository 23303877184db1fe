// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

#include "app/controllers/studied_passes.h"
#include "app/jobs/frame_loader.h"

class QCPItemStraightLine;
class QCustomPlot;

namespace fin::app {

/// The picture of one pass, drawn on the mat; its rig in a corner.
class PaneView : public QWidget {
 public:
  explicit PaneView(QWidget* parent = nullptr);
  void setPicture(const QImage& picture);
  void setWords(const QString& rig, const QString& note);
  /// Screen pixels per pixel of the picture; nought fits the picture in.
  void setMagnified(double times);
  /// The place in the picture that lies in the middle; none for the picture's own.
  void setMiddle(std::optional<QPointF> at);
  [[nodiscard]] const QImage& picture() const { return picture_; }
  [[nodiscard]] double fitting() const;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  QImage picture_;
  QString rig_;
  QString note_;
  double magnified_ = 0.0;
  std::optional<QPointF> middle_;
};

/// One pass among others that run in step: its picture, and beneath it its trace about the instant that all
/// share. Pressing in the trace says that its instant is there.
class InStepPane : public QWidget {
  Q_OBJECT

 public:
  explicit InStepPane(QWidget* parent = nullptr);

  /// The pass must stay until another is shown.
  void show(const StudiedPass& pass, double instant_s, UnitSystem units);
  [[nodiscard]] const StudiedPass* pass() const { return pass_; }
  [[nodiscard]] double instant_s() const { return instant_s_; }
  [[nodiscard]] PaneView& view() const { return *view_; }
  /// Shows what there is `time_s` after the instant; before its clip begins and after it ends its nearest
  /// frame.
  void goTo(double time_s);
  /// Without name and trace.
  void setBlind(bool blind) { blind_ = blind; }
  void clear();
  /// The lure stays in the middle of the picture.
  void setFollowing(bool on);
  /// The frame that was asked for last is not shown yet.
  [[nodiscard]] bool waits() const { return waits_; }
  /// True time of one frame.
  [[nodiscard]] double frame_s() const;
  /// Frames shown since the pass was, each time another one came up.
  [[nodiscard]] const std::vector<std::size_t>& shownFrames() const { return shown_; }
  /// Millimetres that a pixel of the picture stands for; none without a scale.
  [[nodiscard]] std::optional<double> mmPerPixel() const;

 signals:
  void frameShown();
  /// Its picture has another size, or the room for it.
  void sized();
  void instantChosen(double own_s);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void buildPlot();
  void drawTrace(UnitSystem units);
  void note(double time_s);
  void aim();

  const StudiedPass* pass_ = nullptr;
  std::shared_ptr<const Clip> clip_;  ///< of the loader; the pass may be gone before another is shown
  double instant_s_ = 0.0;
  std::optional<std::size_t> frame_;
  bool waits_ = false;
  bool following_ = false;
  bool blind_ = false;
  std::vector<std::size_t> shown_;
  PaneView* view_;
  QCustomPlot* plot_;
  QCPItemStraightLine* cursor_;
  FrameLoader loader_;
};

}  // namespace fin::app
