// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/trace_view.h"

#include <qcustomplot.h>

#include <QVBoxLayout>
#include <limits>

#include "app/look/plot.h"
#include "app/look/theme.h"

namespace fin::app {
namespace {

constexpr int kMarginLeft_px = 62;
constexpr double kDoubtful = 0.5;

/// One trace as it is shown.
struct Shown {
  QString axis;
  QString sentence;
  Series series;
};

Shown scaled(const QString& what, const QString& sentence, Series series, bool upsideDown, bool millimetres,
             UnitSystem units) {
  const ShownUnit unit = millimetres ? shownUnit("mm", units) : ShownUnit{1.0, "px"};
  const double first = series.empty() ? 0.0 : series.y.front();
  for (double& v : series.y) v = (upsideDown ? first - v : v - first) * unit.factor;
  return {QString("%1, %2").arg(what, unit.unit), sentence, std::move(series)};
}

Shown traceFor(const LoggedPass& pass, const PassTraces& traces, UnitSystem units) {
  if (pass.request.protocol == Protocol::Fall) {
    return scaled(QObject::tr("Depth"), QObject::tr("How far the body has fallen since the first frame."),
                  traces.upCentre, true, traces.inMillimetres, units);
  }
  if (pass.request.view == View::Top) {
    return {QObject::tr("Angle, °"), QObject::tr("Which way the body points, against the pull."),
            traces.axis};
  }
  return scaled(QObject::tr("Along"), QObject::tr("How far the body has come along the pull."),
                traces.alongCentre, false, traces.inMillimetres, units);
}

/// With a hole where frames are missing, so that no line is drawn across what was not seen.
void fill(QCPGraph& graph, const Series& series) {
  const double hole_s = 1.6 * series.spacing_s();
  QVector<double> t;
  QVector<double> y;
  for (std::size_t i = 0; i < series.size(); ++i) {
    if (i > 0 && series.t_s[i] - series.t_s[i - 1] > hole_s) {
      t.push_back(0.5 * (series.t_s[i] + series.t_s[i - 1]));
      y.push_back(std::numeric_limits<double>::quiet_NaN());
    }
    t.push_back(series.t_s[i]);
    y.push_back(series.y[i]);
  }
  graph.setData(t, y, true);
}

QCPItemStraightLine* cursorIn(QCustomPlot& plot, QCPAxisRect& rect) {
  auto* line = new QCPItemStraightLine(&plot);
  for (auto* position : {line->point1, line->point2})
    position->setAxes(rect.axis(QCPAxis::atBottom), rect.axis(QCPAxis::atLeft));
  line->setClipAxisRect(&rect);
  line->setPen(QPen(theme().accent, 2));
  return line;
}

}  // namespace

TraceView::TraceView(PassDesk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), sentence_(new QLabel), plot_(new QCustomPlot) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  layout->addWidget(sentence_);
  layout->addWidget(plot_, 1);
  sentence_->setProperty("faint", true);

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
  cursorUpper_ = cursorIn(*plot_, *upper_);
  cursorLower_ = cursorIn(*plot_, *lower_);
  plot_->installEventFilter(this);
  plot_->setAccessibleName(tr("Trace of the lure against true time"));
  setMinimumHeight(150);

  connect(&desk, &PassDesk::passChanged, this, &TraceView::redraw);
  connect(&desk, &PassDesk::resultChanged, this, &TraceView::redraw);
  connect(&desk, &PassDesk::requestChanged, this, &TraceView::redraw);
  connect(&desk, &PassDesk::frameChanged, this, &TraceView::moveCursor);
  redraw();
}

void TraceView::setUnits(UnitSystem units) {
  units_ = units;
  redraw();
}

void TraceView::redraw() {
  plot_->clearGraphs();
  shadeStretches();
  const auto& clock = desk_.clock();
  const double length_s = clock ? clock->timeOf(desk_.clip()->index().frameCount() - 1).value() : 1.0;
  for (QCPAxisRect* rect : {upper_, lower_})
    rect->axis(QCPAxis::atBottom)->setRange(0.0, std::max(length_s, 1e-3));
  const PassResult* result = desk_.result();
  if (result != nullptr && result->traces.frames() > 0) {
    const Shown shown = traceFor(*desk_.current(), result->traces, units_);
    QCPGraph* graph = plot_->addGraph(upper_->axis(QCPAxis::atBottom), upper_->axis(QCPAxis::atLeft));
    graph->setPen(QPen(theme().ink, 1.6));
    fill(*graph, shown.series);
    graph->rescaleValueAxis(false, true);
    auto* values = upper_->axis(QCPAxis::atLeft);
    values->scaleRange(1.15);
    values->setRangeReversed(desk_.current()->request.protocol == Protocol::Fall);
    values->setLabel(shown.axis);
    values->setTickLabels(true);
    sentence_->setText(shown.sentence);
    fillQuality();
  } else {
    upper_->axis(QCPAxis::atLeft)->setRange(-1.0, 1.0);
    upper_->axis(QCPAxis::atLeft)->setLabel({});
    upper_->axis(QCPAxis::atLeft)->setTickLabels(false);
    sentence_->setText(desk_.following()
                           ? tr("The lure is being followed …")
                           : tr("Here the lure's motion will stand, on the footage's own time."));
  }
  moveCursor();
}

/// What is doubtful, on the lane that says how well the marks were held; what is fouled, on both.
void TraceView::shadeStretches() {
  for (QCPItemRect* shade : std::exchange(shades_, {})) plot_->removeItem(shade);
  const auto& clock = desk_.clock();
  if (!clock || desk_.current() == nullptr) return;
  const auto shadeIn = [&](QCPAxisRect& rect, const FrameStretch& frames, const QBrush& brush) {
    auto* shade = new QCPItemRect(plot_);
    shade->setClipAxisRect(&rect);
    shade->setPen(Qt::NoPen);
    shade->setBrush(brush);
    const double half_s = 0.5 / clock->rate().value();
    const std::size_t end = desk_.clip()->index().frameCount() - 1;
    for (auto [corner, frame, side, y] : {std::tuple(shade->topLeft, frames.first, -half_s, 0.0),
                                          {shade->bottomRight, frames.last, half_s, 1.0}}) {
      corner->setAxisRect(&rect);
      corner->setTypeX(QCPItemPosition::ptPlotCoords);
      corner->setTypeY(QCPItemPosition::ptAxisRectRatio);
      corner->setAxes(rect.axis(QCPAxis::atBottom), rect.axis(QCPAxis::atLeft));
      corner->setCoords(clock->timeOf(std::min(frame, end)).value() + side, y);
    }
    shades_.push_back(shade);
  };
  QColor light = theme().trouble;
  light.setAlpha(46);
  for (const FrameStretch& s : desk_.doubtful()) shadeIn(*lower_, s, light);
  for (const FouledStretch& f : desk_.current()->request.fouled) {
    for (QCPAxisRect* rect : {upper_, lower_})
      shadeIn(*rect, f.frames, QBrush(theme().trouble, Qt::BDiagPattern));
  }
}

void TraceView::fillQuality() {
  const PassResult& result = *desk_.result();
  for (const MarkTrack& mark : result.track.marks) {
    Series quality;
    for (std::size_t i = 0; i < mark.samples.size(); ++i)
      quality.add(result.time_s[i], mark.samples[i].quality);
    QCPGraph* graph = plot_->addGraph(lower_->axis(QCPAxis::atBottom), lower_->axis(QCPAxis::atLeft));
    graph->setPen(QPen(markColour(static_cast<int>(mark.name)), 1.6));
    fill(*graph, quality);
  }
  Series limit;
  limit.add(0.0, kDoubtful);
  limit.add(lower_->axis(QCPAxis::atBottom)->range().upper, kDoubtful);
  QCPGraph* doubtful = plot_->addGraph(lower_->axis(QCPAxis::atBottom), lower_->axis(QCPAxis::atLeft));
  doubtful->setPen(QPen(theme().trouble, 1, Qt::DotLine));
  doubtful->setData({limit.t_s[0], limit.t_s[1]}, {kDoubtful, kDoubtful}, true);
}

void TraceView::moveCursor() {
  const auto& clock = desk_.clock();
  const double t = clock ? clock->timeOf(desk_.frame()).value() : 0.0;
  for (QCPItemStraightLine* cursor : {cursorUpper_, cursorLower_}) {
    cursor->point1->setCoords(t, 0.0);
    cursor->point2->setCoords(t, 1.0);
  }
  plot_->replot(QCustomPlot::rpQueuedReplot);
}

bool TraceView::eventFilter(QObject* watched, QEvent* event) {
  const bool pressed = event->type() == QEvent::MouseButtonPress;
  if (pressed || event->type() == QEvent::MouseMove) {
    const auto* mouse = static_cast<QMouseEvent*>(event);
    if (pressed || mouse->buttons().testFlag(Qt::LeftButton)) goTo(mouse->position());
  }
  return QWidget::eventFilter(watched, event);
}

void TraceView::goTo(QPointF at) {
  if (!desk_.clock()) return;
  const double t = upper_->axis(QCPAxis::atBottom)->pixelToCoord(at.x());
  const double container_s = t / desk_.clock()->factor();
  emit frameWanted(desk_.clip()->index().frameShownAt(Seconds(std::max(container_s, 0.0))));
}

}  // namespace fin::app
