// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QPen>
#include <QWidget>

#include "app/controllers/pass_controller.h"
#include "app/phrases/words.h"

class QCustomPlot;
class QCPItemStraightLine;
class QCPItemRect;
class QCPAxisRect;

namespace fin::app {

/// What the lure did, on the footage's own time: the trace that the protocol turns on, and beneath it how
/// well the marks were held. Pressing or dragging in it goes to that instant.
class TraceView : public QWidget {
  Q_OBJECT

 public:
  explicit TraceView(PassController& controller, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 signals:
  void frameWanted(std::size_t frame);
  void twitchAdded(double at_s);
  /// Drawn over with Shift held: it is not to count.
  void stretchLeftOut(std::size_t first, std::size_t last);
  void twitchMoved(double from_s, double to_s);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void redraw();
  void moveCursor();
  void fillQuality();
  void shade(QCPAxisRect& rect, TimeSpan span, const QBrush& brush, const QPen& pen = Qt::NoPen);
  void shadeStretches();
  void shadeEvidence(const Evidence& evidence);
  void drawLine(const FittedLine& line, double factor, double zero);
  void goTo(QPointF at);
  [[nodiscard]] double timeAt(QPointF at) const;
  [[nodiscard]] std::size_t frameAt(double time_s) const;
  bool drawOver(const QMouseEvent& mouse);
  /// The start of a twitch whose line lies under the hand.
  [[nodiscard]] std::optional<double> startAt(QPointF at) const;

  PassController& controller_;
  UnitSystem units_ = UnitSystem::Metric;
  QLabel* sentence_;
  QCustomPlot* plot_;
  QCPAxisRect* upper_ = nullptr;
  QCPAxisRect* lower_ = nullptr;
  QCPItemStraightLine* cursorUpper_ = nullptr;
  QCPItemStraightLine* cursorLower_ = nullptr;
  std::vector<QCPItemRect*> shades_;
  std::optional<double> drawnFrom_s_;  ///< where a stretch begins that is being drawn over
  QCPItemRect* drawn_ = nullptr;
  std::optional<double> grabbed_s_;  ///< the start that is being dragged
};

}  // namespace fin::app
