// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/overlay_page.h"

#include <qcustomplot.h>

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/plots/pass_trace.h"
#include "app/plots/plot.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

// A second code beside the colour.
const Qt::PenStyle kDashes[] = {Qt::SolidLine, Qt::DashLine, Qt::DotLine, Qt::DashDotLine};

constexpr double kNamesShare = 0.045;  ///< of the height, a line of the legend

/// The sample at or after a time.
std::size_t indexAt(const Series& series, double t_s) {
  const auto at = std::lower_bound(series.t_s.begin(), series.t_s.end(), t_s);
  return static_cast<std::size_t>(at - series.t_s.begin());
}

}  // namespace

OverlayPage::OverlayPage(LineUp& lineUp, StudiedPasses& studied, QWidget* parent)
    : QWidget(parent),
      studied_(studied),
      what_(new QComboBox),
      sentence_(new QLabel),
      plot_(dressedPlot("overlayPlot")),
      words_(faintLabel({})) {
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(14);
  layout->addWidget(new PassPicker(lineUp, studied));
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  auto* row = new QHBoxLayout;
  what_->setObjectName("overlayWhat");
  what_->setAccessibleName(tr("What to lay over each other"));
  what_->addItems({tr("Traces, from where the run begins"), tr("Ways through the water, from their start"),
                   tr("Twitches, each from its own start"), tr("Skirts, from the stop")});
  what_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
  row->addWidget(what_);
  row->addWidget(sentence_, 1);
  right->addLayout(row);
  sentence_->setObjectName("overlaySentence");
  sentence_->setWordWrap(true);
  plot_->legend->setVisible(true);
  plot_->legend->setBrush(theme().paper);
  plot_->legend->setBorderPen(QPen(theme().line));
  plot_->legend->setTextColor(theme().ink);
  plot_->axisRect()->insetLayout()->setInsetAlignment(0, Qt::AlignTop | Qt::AlignRight);
  right->addWidget(plot_, 1);
  words_->setObjectName("overlayWords");
  right->addWidget(words_);
  layout->addLayout(right, 1);
  connect(what_, &QComboBox::currentIndexChanged, this, &OverlayPage::refresh);
  connect(&studied, &StudiedPasses::changed, this, &OverlayPage::refresh);
  refresh();
}

void OverlayPage::setUnits(UnitSystem units) {
  units_ = units;
  refresh();
}

void OverlayPage::refresh() {
  plot_->clearPlottables();
  QStringList without;
  int colour = 0;
  const auto ready = studied_.ready();
  for (const StudiedPass* pass : ready) {
    const QPen pen(markColour(colour), 1.8, kDashes[static_cast<std::size_t>(colour) % std::size(kDashes)]);
    if (!pass->result || !draw(*pass, pen))
      without += pass->trouble.isEmpty() ? pass->title : pass->title + ": " + pass->trouble;
    ++colour;
  }
  setScale();
  QStringList lines;
  if (studied_.busy()) lines += tr("The clips are being opened …");
  if (ready.empty() && !studied_.busy())
    lines += tr("Tick two to six passes on the left to lay them over each other.");
  if (!without.isEmpty()) lines += tr("Nothing of this kind in: %1.").arg(without.join("; "));
  words_->setText(lines.join(" "));
}

bool OverlayPage::draw(const StudiedPass& pass, const QPen& pen) {
  switch (what()) {
    case What::Traces:
      sentence_->setText(tr("What each lure did, on its own time since its run began."));
      return drawTrace(pass, pen);
    case What::Paths:
      sentence_->setText(
          tr("The way of the body's centre, each from its own start; both directions to one scale."));
      return drawPath(pass, pen);
    case What::Twitches:
      sentence_->setText(
          tr("How far the body came along the pull in every twitch that counts. One line over the "
             "other: the same each time."));
      return drawTwitches(pass, pen);
    case What::Skirts:
      sentence_->setText(tr("How much of the picture the skirt covers, from where the lure stops."));
      return drawSkirt(pass, pen);
  }
  return false;
}

/// Only the first line of a pass is named.
void OverlayPage::lie(const StudiedPass& pass, const std::vector<double>& x, const std::vector<double>& y,
                      const QPen& pen) {
  auto* curve = new QCPCurve(plot_->xAxis, plot_->yAxis);
  curve->setPen(pen);
  curve->setData(QVector<double>(x.begin(), x.end()), QVector<double>(y.begin(), y.end()));
  for (int i = 0; i < plot_->plottableCount() - 1; ++i) {
    if (plot_->plottable(i)->name() == pass.title) curve->removeFromLegend();
  }
  curve->setName(pass.title);
}

bool OverlayPage::drawTrace(const StudiedPass& pass, const QPen& pen) {
  const ShownTrace trace = traceFor(pass.request, *pass.result, units_);
  if (trace.series.empty()) return false;
  plot_->yAxis->setLabel(trace.axis);
  plot_->xAxis->setLabel(tr("s since the run began"));
  std::vector<double> t = trace.series.t_s;
  for (double& at : t) at -= trace.series.t_s.front();
  lie(pass, t, trace.series.y, pen);
  return true;
}

bool OverlayPage::drawPath(const StudiedPass& pass, const QPen& pen) {
  const PassTraces& traces = pass.result->traces;
  if (traces.alongCentre.empty() || !traces.inMillimetres) return false;
  const ShownUnit mm = shownUnit("mm", units_);
  std::vector<double> x, y;
  for (std::size_t i = 0; i < traces.alongCentre.size(); ++i) {
    x.push_back((traces.alongCentre.y[i] - traces.alongCentre.y.front()) * mm.factor);
    y.push_back((traces.upCentre.y[i] - traces.upCentre.y.front()) * mm.factor);
  }
  plot_->xAxis->setLabel(tr("Along the pull, %1").arg(mm.unit));
  plot_->yAxis->setLabel(pass.request.view == View::Top ? tr("To the side, %1").arg(mm.unit)
                                                        : tr("Up, %1").arg(mm.unit));
  lie(pass, x, y, pen);
  return true;
}

bool OverlayPage::drawTwitches(const StudiedPass& pass, const QPen& pen) {
  const Series& along = pass.result->traces.alongCentre;
  const ShownUnit unit = pass.result->traces.inMillimetres ? shownUnit("mm", units_) : ShownUnit{1.0, "px"};
  bool any = false;
  for (const TwitchSpan& twitch : pass.result->evidence.twitches) {
    const std::size_t from = indexAt(along, twitch.span.from_s);
    if (twitch.leftOut || from >= along.size()) continue;
    std::vector<double> t, y;
    for (std::size_t i = from; i < along.size() && along.t_s[i] < twitch.span.to_s; ++i) {
      t.push_back(along.t_s[i] - twitch.span.from_s);
      y.push_back((along.y[i] - along.y[from]) * unit.factor);
    }
    lie(pass, t, y, pen);
    any = true;
  }
  plot_->xAxis->setLabel(tr("s since the twitch began"));
  plot_->yAxis->setLabel(tr("Along the pull, %1").arg(unit.unit));
  return any;
}

bool OverlayPage::drawSkirt(const StudiedPass& pass, const QPen& pen) {
  const OutlineTraces& outline = pass.result->outline;
  const auto& stop_s = pass.result->evidence.stop_s;
  if (outline.area.empty() || !stop_s) return false;
  const ShownUnit unit = outline.inMillimetres ? shownUnit("mm²", units_) : ShownUnit{1.0, "px²"};
  std::vector<double> t, y;
  for (std::size_t i = 0; i < outline.area.size(); ++i) {
    t.push_back(outline.area.t_s[i] - *stop_s);
    y.push_back(outline.area.y[i] * unit.factor);
  }
  plot_->xAxis->setLabel(tr("s since the stop"));
  plot_->yAxis->setLabel(tr("Area, %1").arg(unit.unit));
  lie(pass, t, y, pen);
  return true;
}

void OverlayPage::setScale() {
  const bool any = plot_->plottableCount() > 0;
  plot_->setVisible(any);
  if (!any) return;
  plot_->rescaleAxes();
  for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) axis->scaleRange(1.06);
  // Room for the names above the lines.
  const QCPRange range = plot_->yAxis->range();
  plot_->yAxis->setRangeUpper(range.upper + kNamesShare * plot_->legend->itemCount() * range.size());
  plot_->replot(QCustomPlot::rpImmediateRefresh);  // lays out, so that both directions can be scaled alike
  if (what() == What::Paths) {
    const double across = plot_->xAxis->range().size() / plot_->axisRect()->width();
    const double up = plot_->yAxis->range().size() / plot_->axisRect()->height();
    if (across > up) {
      plot_->yAxis->setScaleRatio(plot_->xAxis, 1.0);
    } else {
      plot_->xAxis->setScaleRatio(plot_->yAxis, 1.0);
    }
    plot_->replot();
  }
  plot_->setAccessibleName(sentence_->text());
}

}  // namespace fin::app
