// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/trace_view.h"

#include <qcustomplot.h>

#include <QVBoxLayout>

#include "app/plots/pass_trace.h"
#include "app/plots/plot.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kMarginLeft_px = 62;
constexpr double kDoubtful = 0.5;
constexpr double kGrab_px = 4.0;  ///< either side of a line that can be dragged

/// What the shades and lines on the trace stand for.
QString toldBy(const Evidence& evidence, Protocol protocol) {
  QStringList out;
  if (!evidence.cycles.empty())
    out +=
        QObject::tr("%1 counted, every other one shaded.")
            .arg(counted(evidence.cycles.size(), QObject::tr("whole wobble"), QObject::tr("whole wobbles")));
  if (evidence.steady)
    out += QObject::tr("Shaded where the fall is steady; the dashed line's slope is the fall rate.");
  if (!evidence.twitches.empty())
    out += QObject::tr("%1, each from its dashed line.")
               .arg(protocol == Protocol::Hop
                        ? counted(evidence.twitches.size(), QObject::tr("hop"), QObject::tr("hops"))
                        : counted(evidence.twitches.size(), QObject::tr("twitch"), QObject::tr("twitches")));
  if (evidence.stop_s) out += QObject::tr("It stops at the dashed line.");
  if (!evidence.breakouts_s.empty())
    out += QObject::tr("%1 dotted.")
               .arg(counted(evidence.breakouts_s.size(), QObject::tr("breakout"), QObject::tr("breakouts")));
  return out.join(" ");
}

QCPItemStraightLine* cursorIn(QCustomPlot& plot, QCPAxisRect& rect, const QString& layer) {
  auto* line = new QCPItemStraightLine(&plot);
  line->setLayer(layer);
  for (auto* position : {line->point1, line->point2})
    position->setAxes(rect.axis(QCPAxis::atBottom), rect.axis(QCPAxis::atLeft));
  line->setClipAxisRect(&rect);
  line->setPen(QPen(theme().accent, 2));
  return line;
}

}  // namespace

TraceView::TraceView(PassController& controller, QWidget* parent)
    : QWidget(parent), controller_(controller), sentence_(new QLabel), plot_(new QCustomPlot) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  layout->addWidget(sentence_);
  layout->addWidget(plot_, 1);
  sentence_->setProperty("faint", true);
  sentence_->setObjectName("traceSentence");

  plot_->setBackground(theme().paper);
  plot_->plotLayout()->clear();
  upper_ = new QCPAxisRect(plot_);
  lower_ = new QCPAxisRect(plot_);
  plot_->plotLayout()->addElement(0, 0, upper_);
  plot_->plotLayout()->addElement(1, 0, lower_);
  plot_->plotLayout()->setRowStretchFactors({5.0, 1.0});
  plot_->plotLayout()->setRowSpacing(0);
  for (QCPAxisRect* rect : {upper_, lower_}) {
    rect->setAutoMargins(QCP::msBottom | QCP::msTop);
    rect->setMinimumMargins(QMargins(0, 3, 0, 2));
    rect->setMargins(QMargins(kMarginLeft_px, 3, 14, 2));
    rect->setBackground(theme().card);
    dressAxis(*rect->axis(QCPAxis::atBottom));
    dressAxis(*rect->axis(QCPAxis::atLeft));
    rect->axis(QCPAxis::atLeft)->ticker()->setTickCount(4);
  }
  upper_->axis(QCPAxis::atBottom)->setTickLabels(false);
  lower_->axis(QCPAxis::atBottom)->setLabel(tr("True time, s"));
  lower_->axis(QCPAxis::atLeft)->setRange(0.0, 1.05);
  lower_->axis(QCPAxis::atLeft)->setLabel(tr("Held"));
  auto ticks = QSharedPointer<QCPAxisTickerText>::create();
  ticks->addTick(0.0, tr("lost"));
  ticks->addTick(1.0, tr("well"));
  lower_->axis(QCPAxis::atLeft)->setTicker(ticks);
  // On a layer of its own, with a buffer of its own: the trace of a long pass is not drawn anew for every
  // frame.
  const QString layer = "cursor";
  plot_->addLayer(layer);
  plot_->layer(layer)->setMode(QCPLayer::lmBuffered);
  cursorUpper_ = cursorIn(*plot_, *upper_, layer);
  cursorLower_ = cursorIn(*plot_, *lower_, layer);
  plot_->installEventFilter(this);
  plot_->setAccessibleName(tr("Trace of the lure against true time"));
  plot_->setToolTip(tr("Press or drag: go there. Drag with Shift: leave that stretch out of the numbers."));
  setMinimumHeight(150);

  connect(&controller, &PassController::passChanged, this, &TraceView::redraw);
  connect(&controller, &PassController::resultChanged, this, &TraceView::redraw);
  connect(&controller, &PassController::requestChanged, this, &TraceView::redraw);
  connect(&controller, &PassController::frameChanged, this, &TraceView::moveCursor);
  redraw();
}

void TraceView::setUnits(UnitSystem units) {
  units_ = units;
  redraw();
}

void TraceView::redraw() {
  setVisible(controller_.current() == nullptr || controller_.current()->request.protocol != Protocol::Sound);
  plot_->clearGraphs();
  shadeStretches();
  const auto& clock = controller_.clock();
  const double length_s = clock ? clock->timeOf(controller_.clip()->index().frameCount() - 1).value() : 1.0;
  for (QCPAxisRect* rect : {upper_, lower_})
    rect->axis(QCPAxis::atBottom)->setRange(0.0, std::max(length_s, 1e-3));
  const PassResult* result = controller_.result();
  const ShownTrace shown =
      result == nullptr ? ShownTrace{} : traceFor(controller_.current()->request, *result, units_);
  if (!shown.series.empty()) {
    QCPGraph* graph = plot_->addGraph(upper_->axis(QCPAxis::atBottom), upper_->axis(QCPAxis::atLeft));
    graph->setPen(QPen(theme().ink, 1.6));
    fillTrace(*graph, shown.series);
    graph->rescaleValueAxis(false, true);
    auto* values = upper_->axis(QCPAxis::atLeft);
    values->scaleRange(1.15);
    values->setRangeReversed(controller_.current()->request.protocol == Protocol::Fall);
    values->setLabel(shown.axis);
    values->setTickLabels(true);
    if (result->evidence.line && shown.millimetres)
      drawLine(*result->evidence.line, shown.factor, shown.zero);
    shadeEvidence(result->evidence);
    sentence_->setText(shown.sentence + " " +
                       toldBy(result->evidence, controller_.current()->request.protocol));
    fillQuality();
  } else {
    upper_->axis(QCPAxis::atLeft)->setRange(-1.0, 1.0);
    upper_->axis(QCPAxis::atLeft)->setLabel({});
    upper_->axis(QCPAxis::atLeft)->setTickLabels(false);
    sentence_->setText(controller_.following()
                           ? tr("The lure is being followed …")
                           : tr("The lure's motion will be plotted here, over the clip's time."));
  }
  moveCursor();
  plot_->replot(QCustomPlot::rpQueuedReplot);
}

void TraceView::shade(QCPAxisRect& rect, TimeSpan span, const QBrush& brush, const QPen& pen) {
  auto* item = new QCPItemRect(plot_);
  item->setClipAxisRect(&rect);
  item->setPen(pen);
  item->setBrush(brush);
  for (auto [corner, time_s, y] :
       {std::tuple(item->topLeft, span.from_s, 0.0), {item->bottomRight, span.to_s, 1.0}}) {
    corner->setAxisRect(&rect);
    corner->setTypeX(QCPItemPosition::ptPlotCoords);
    corner->setTypeY(QCPItemPosition::ptAxisRectRatio);
    corner->setAxes(rect.axis(QCPAxis::atBottom), rect.axis(QCPAxis::atLeft));
    corner->setCoords(time_s, y);
  }
  shades_.push_back(item);
}

/// What is doubtful, on the lane that says how well the marks were held; what is fouled, on both.
void TraceView::shadeStretches() {
  for (QCPItemRect* item : std::exchange(shades_, {})) plot_->removeItem(item);
  const auto& clock = controller_.clock();
  if (!clock || controller_.current() == nullptr) return;
  const double half_s = 0.5 / clock->rate().value();
  const std::size_t end = controller_.clip()->index().frameCount() - 1;
  const auto spanOf = [&](const FrameStretch& frames) {
    return TimeSpan{clock->timeOf(std::min(frames.first, end)).value() - half_s,
                    clock->timeOf(std::min(frames.last, end)).value() + half_s};
  };
  QColor light = theme().trouble;
  light.setAlpha(46);
  for (const FrameStretch& s : controller_.doubtful()) shade(*lower_, spanOf(s), light);
  for (const FouledStretch& f : controller_.current()->request.fouled) {
    for (QCPAxisRect* rect : {upper_, lower_})
      shade(*rect, spanOf(f.frames), QBrush(theme().trouble, Qt::BDiagPattern));
  }
}

/// Wobbles by turns, the steady part of a fall, the start of every twitch, breakouts.
void TraceView::shadeEvidence(const Evidence& evidence) {
  QColor light = theme().accent;
  light.setAlpha(34);
  for (std::size_t i = 0; i < evidence.cycles.size(); i += 2) shade(*upper_, evidence.cycles[i], light);
  if (evidence.steady) shade(*upper_, *evidence.steady, light);
  for (const TwitchSpan& twitch : evidence.twitches) {
    const double at_s = twitch.span.from_s;
    shade(*upper_, {at_s, at_s}, Qt::NoBrush, QPen(theme().accent, 1.6, Qt::DashLine));
    if (twitch.leftOut) shade(*upper_, twitch.span, QBrush(theme().faint, Qt::BDiagPattern));
  }
  if (evidence.stop_s)
    shade(*upper_, {*evidence.stop_s, *evidence.stop_s}, Qt::NoBrush,
          QPen(theme().accent, 1.6, Qt::DashLine));
  for (const double at_s : evidence.breakouts_s)
    shade(*upper_, {at_s, at_s}, Qt::NoBrush, QPen(theme().trouble, 2.2, Qt::DotLine));
}

void TraceView::drawLine(const FittedLine& line, double factor, double zero) {
  QCPGraph* graph = plot_->addGraph(upper_->axis(QCPAxis::atBottom), upper_->axis(QCPAxis::atLeft));
  graph->setPen(QPen(theme().accent, 1.6, Qt::DashLine));
  graph->setData({line.span.from_s, line.span.to_s}, {(line.from - zero) * factor, (line.to - zero) * factor},
                 true);
}

void TraceView::fillQuality() {
  const PassResult& result = *controller_.result();
  for (const MarkTrack& mark : result.track.marks) {
    Series quality;
    for (std::size_t i = 0; i < mark.samples.size(); ++i)
      quality.add(result.time_s[i], mark.samples[i].quality);
    QCPGraph* graph = plot_->addGraph(lower_->axis(QCPAxis::atBottom), lower_->axis(QCPAxis::atLeft));
    graph->setPen(QPen(markColour(static_cast<int>(mark.name)), 1.6));
    fillTrace(*graph, quality);
  }
  Series limit;
  limit.add(0.0, kDoubtful);
  limit.add(lower_->axis(QCPAxis::atBottom)->range().upper, kDoubtful);
  QCPGraph* doubtful = plot_->addGraph(lower_->axis(QCPAxis::atBottom), lower_->axis(QCPAxis::atLeft));
  doubtful->setPen(QPen(theme().trouble, 1, Qt::DotLine));
  doubtful->setData({limit.t_s[0], limit.t_s[1]}, {kDoubtful, kDoubtful}, true);
}

void TraceView::moveCursor() {
  const auto& clock = controller_.clock();
  const double t = clock ? clock->timeOf(controller_.frame()).value() : 0.0;
  for (QCPItemStraightLine* cursor : {cursorUpper_, cursorLower_}) {
    cursor->point1->setCoords(t, 0.0);
    cursor->point2->setCoords(t, 1.0);
  }
  cursorUpper_->layer()->replot();
}

/// A twitch's line is dragged, and a press twice over where none is adds one; else the hand goes through
/// time.
bool TraceView::eventFilter(QObject* watched, QEvent* event) {
  const auto type = event->type();
  if (type != QEvent::MouseButtonPress && type != QEvent::MouseMove && type != QEvent::MouseButtonRelease &&
      type != QEvent::MouseButtonDblClick)
    return QWidget::eventFilter(watched, event);
  const auto* mouse = static_cast<QMouseEvent*>(event);
  const QPointF at = mouse->position();
  if (drawOver(*mouse)) return true;
  if (type == QEvent::MouseButtonPress) grabbed_s_ = startAt(at);
  if (type == QEvent::MouseButtonPress || mouse->buttons().testFlag(Qt::LeftButton)) goTo(at);
  if (type == QEvent::MouseMove)
    plot_->setCursor(grabbed_s_ || startAt(at) ? Qt::SizeHorCursor : Qt::ArrowCursor);
  if (type == QEvent::MouseButtonDblClick && !startAt(at)) emit twitchAdded(timeAt(at));
  if (type == QEvent::MouseButtonRelease) {
    const auto from = std::exchange(grabbed_s_, std::nullopt);
    if (from && std::abs(timeAt(at) - *from) > timeAt(at + QPointF(kGrab_px, 0)) - timeAt(at))
      emit twitchMoved(*from, timeAt(at));
  }
  return QWidget::eventFilter(watched, event);
}

/// With Shift the hand leaves a stretch out in place of going through time.
bool TraceView::drawOver(const QMouseEvent& mouse) {
  const double at_s = timeAt(mouse.position());
  if (mouse.type() == QEvent::MouseButtonPress && mouse.modifiers().testFlag(Qt::ShiftModifier) &&
      controller_.clock()) {
    drawnFrom_s_ = at_s;
    return true;
  }
  if (!drawnFrom_s_) return false;
  const auto [from, to] = std::minmax(*drawnFrom_s_, at_s);
  if (drawn_ != nullptr) plot_->removeItem(drawn_);
  drawn_ = nullptr;
  if (mouse.type() == QEvent::MouseButtonRelease) {
    drawnFrom_s_.reset();
    if (frameAt(to) > frameAt(from)) emit stretchLeftOut(frameAt(from), frameAt(to));
  } else {
    shade(*upper_, {from, to}, QBrush(theme().trouble, Qt::BDiagPattern));
    drawn_ = shades_.back();
    shades_.pop_back();
  }
  plot_->replot(QCustomPlot::rpQueuedReplot);
  return true;
}

std::size_t TraceView::frameAt(double time_s) const {
  return controller_.clip()->index().frameShownAt(
      Seconds(std::max(time_s / controller_.clock()->factor(), 0.0)));
}

double TraceView::timeAt(QPointF at) const {
  return upper_->axis(QCPAxis::atBottom)->pixelToCoord(at.x());
}

std::optional<double> TraceView::startAt(QPointF at) const {
  if (controller_.result() == nullptr) return std::nullopt;
  for (const TwitchSpan& twitch : controller_.result()->evidence.twitches) {
    const double x = upper_->axis(QCPAxis::atBottom)->coordToPixel(twitch.span.from_s);
    if (std::abs(x - at.x()) <= kGrab_px) return twitch.span.from_s;
  }
  return std::nullopt;
}

void TraceView::goTo(QPointF at) {
  if (!controller_.clock()) return;
  emit frameWanted(frameAt(timeAt(at)));
}

}  // namespace fin::app
