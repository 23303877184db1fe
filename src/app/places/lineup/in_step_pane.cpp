// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/in_step_pane.h"

#include <qcustomplot.h>

#include <QPainter>
#include <QVBoxLayout>

#include "app/canvas/view/lure_place.h"
#include "app/plots/pass_trace.h"
#include "app/plots/plot.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

constexpr int kTraceHeight_px = 98;
constexpr int kTraceLeft_px = 50;
constexpr double kSteady_s = 0.15;  ///< either side, over which the lure's place is averaged
constexpr const char* kCursorLayer = "cursor";

}  // namespace

PaneView::PaneView(QWidget* parent) : QWidget(parent) {
  setMinimumSize(160, 90);
  setAttribute(Qt::WA_OpaquePaintEvent);
}

void PaneView::setPicture(const QImage& picture) {
  picture_ = picture;
  update();
}

void PaneView::setWords(const QString& rig, const QString& note) {
  if (rig == rig_ && note == note_) return;
  rig_ = rig;
  note_ = note;
  update();
}

void PaneView::setMagnified(double times) {
  magnified_ = times;
  update();
}

void PaneView::setMiddle(std::optional<QPointF> at) {
  middle_ = at;
  update();
}

double PaneView::fitting() const {
  if (picture_.isNull()) return 1.0;
  return std::min(width() / static_cast<double>(picture_.width()),
                  height() / static_cast<double>(picture_.height()));
}

void PaneView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme().mat);
  if (!picture_.isNull()) {
    const double times = magnified_ > 0.0 ? magnified_ : fitting();
    const QPointF middle = middle_.value_or(QRectF(picture_.rect()).center());
    const QRectF place(QRectF(rect()).center() - times * middle, times * QSizeF(picture_.size()));
    painter.setRenderHint(QPainter::SmoothPixmapTransform, times > 1.0);
    painter.drawImage(place, picture_);
  }
  const auto tag = [&](const QString& text, Qt::Alignment where, const QColor& ink) {
    if (text.isEmpty()) return;
    QRectF box = painter.boundingRect(QRectF(rect()).adjusted(8, 6, -8, -6), static_cast<int>(where), text);
    painter.fillRect(box.adjusted(-5, -2, 5, 2), theme().paper);
    painter.setPen(ink);
    painter.drawText(box, static_cast<int>(where), text);
  };
  tag(rig_, Qt::AlignLeft | Qt::AlignTop, theme().ink);
  tag(note_, Qt::AlignRight | Qt::AlignBottom, theme().trouble);
}

InStepPane::InStepPane(QWidget* parent)
    : QWidget(parent), view_(new PaneView), plot_(dressedPlot("inStepTrace")) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(view_, 1);
  buildPlot();
  layout->addWidget(plot_);
  connect(&loader_, &FrameLoader::loaded, this, [this](std::size_t frame, const QImage& picture) {
    if (!frame_ || frame != *frame_) return;
    waits_ = false;
    if (shown_.empty() || shown_.back() != frame) shown_.push_back(frame);
    const bool sameSize = view_->picture().size() == picture.size();
    view_->setPicture(picture);
    if (!sameSize) emit sized();
    aim();
    emit frameShown();
  });
  connect(&loader_, &FrameLoader::failed, this, [this](std::size_t, const QString& why) {
    waits_ = false;
    if (pass_ != nullptr) view_->setWords(blind_ ? QString() : pass_->rig, why);
  });
}

void InStepPane::buildPlot() {
  plot_->setFixedHeight(kTraceHeight_px);
  plot_->axisRect()->setAutoMargins(QCP::msBottom | QCP::msTop);
  plot_->axisRect()->setMargins(QMargins(kTraceLeft_px, 3, 8, 2));
  plot_->setToolTip(tr("Press where its instant is."));
  plot_->yAxis->ticker()->setTickCount(3);
  plot_->xAxis->setLabel(tr("s from the instant"));
  plot_->xAxis->setLabelPadding(0);
  plot_->installEventFilter(this);
  // The cursor alone moves while the passes run.
  plot_->addLayer(kCursorLayer);
  plot_->layer(kCursorLayer)->setMode(QCPLayer::lmBuffered);
  cursor_ = new QCPItemStraightLine(plot_);
  cursor_->setPen(QPen(theme().accent, 2));
  cursor_->setLayer(kCursorLayer);
}

void InStepPane::show(const StudiedPass& pass, double instant_s, UnitSystem units) {
  if (pass_ == nullptr || clip_ != pass.clip) {
    clip_ = pass.clip;
    loader_.setClip(clip_);
    view_->setPicture({});
    shown_.clear();
    frame_.reset();
  }
  pass_ = &pass;
  instant_s_ = instant_s;
  drawTrace(units);
}

void InStepPane::clear() {
  pass_ = nullptr;
  clip_ = nullptr;
  loader_.setClip(nullptr);
  view_->setPicture({});
  frame_.reset();
  waits_ = false;
}

void InStepPane::drawTrace(UnitSystem units) {
  plot_->clearGraphs();
  const bool traced = pass_->result && !blind_;
  plot_->setVisible(traced);
  if (!traced) return;
  const ShownTrace trace = traceFor(pass_->request, *pass_->result, units);
  QCPGraph* graph = plot_->addGraph();
  graph->setPen(QPen(theme().ink, 1.4));
  fillTrace(*graph, trace.series, instant_s_);
  auto* zero = plot_->addGraph();
  plot_->yAxis->setLabel(trace.axis);
  graph->rescaleAxes();
  const QCPRange range = plot_->yAxis->range();
  plot_->yAxis->setRange(range.lower - 0.06 * range.size(), range.upper + 0.06 * range.size());
  zero->setPen(QPen(theme().faint, 1, Qt::DotLine));
  zero->setData({0.0, 0.0}, {plot_->yAxis->range().lower, plot_->yAxis->range().upper}, true);
  plot_->setAccessibleName(trace.sentence);
  plot_->replot();
}

double InStepPane::frame_s() const {
  return pass_ == nullptr || !pass_->clock ? 1.0 : 1.0 / pass_->clock->rate().value();
}

std::optional<double> InStepPane::mmPerPixel() const {
  if (pass_ == nullptr || !pass_->result || !pass_->result->traces.inMillimetres) return std::nullopt;
  return pass_->result->traces.unitPerPixel;
}

void InStepPane::goTo(double time_s) {
  if (pass_ == nullptr) return;
  note(time_s);
  if (!pass_->clock) return;
  const double own_s = std::clamp(instant_s_ + time_s, 0.0, pass_->end_s());
  const std::size_t frame = pass_->clip->index().frameShownAt(Seconds(own_s / pass_->clock->factor() + 1e-9));
  cursor_->point1->setCoords(time_s, 0.0);
  cursor_->point2->setCoords(time_s, 1.0);
  plot_->layer(kCursorLayer)->replot();
  if (frame_ && frame == *frame_) return;
  frame_ = frame;
  waits_ = true;
  loader_.request(frame);
}

void InStepPane::setFollowing(bool on) {
  following_ = on;
  aim();
}

void InStepPane::aim() {
  const bool can = following_ && frame_ && pass_ != nullptr && pass_->result;
  const auto around = static_cast<std::size_t>(kSteady_s / frame_s());
  view_->setMiddle(can ? lurePlace(pass_->result->track, *frame_, around) : std::nullopt);
}

void InStepPane::note(double time_s) {
  QString note = pass_->trouble;
  if (pass_->clock && instant_s_ + time_s < 0.0) note = tr("not begun yet");
  if (pass_->clock && instant_s_ + time_s > pass_->end_s() + frame_s()) note = tr("over");
  view_->setWords(blind_ ? QString() : pass_->rig, note);
}

void InStepPane::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  emit sized();
}

bool InStepPane::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::MouseButtonPress && pass_ != nullptr) {
    const double at = plot_->xAxis->pixelToCoord(static_cast<QMouseEvent*>(event)->position().x());
    emit instantChosen(instant_s_ + at);
  }
  return QWidget::eventFilter(watched, event);
}

}  // namespace fin::app
