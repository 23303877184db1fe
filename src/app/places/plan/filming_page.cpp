// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/filming_page.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QVBoxLayout>

#include "app/places/plan/number_form.h"
#include "app/ui/pieces.h"
#include "app/ui/theme.h"

namespace fin::app {
namespace {

NumberLine line(const QString& label, const char* name, const char* unit, UnitBox::Range range,
                double FilmingPlan::*member) {
  return numberLine(label, name, unit, range, &DayPlan::filming, member);
}

/// Exposure is said as a part of a second.
NumberLine exposureLine() {
  return {QObject::tr("Exposure"),
          "exposure",
          "s",
          {1.0, 100000.0, 0},
          [](const DayPlan& p) { return 1.0 / p.filming.exposure_s; },
          [](DayPlan& p, double v) { p.filming.exposure_s = 1.0 / v; },
          "1/"};
}

NumberLine widthLine() {
  return {QObject::tr("Picture's width"),
          "pictureWidth",
          "px",
          {0.0, 20000.0, 0},
          [](const DayPlan& p) { return static_cast<double>(p.filming.width_px); },
          [](DayPlan& p, double v) { p.filming.width_px = static_cast<int>(v); }};
}

/// As on the page of the water: typed once.
NumberLine depthLine() {
  return numberLine(QObject::tr("Depth of water"), "filmingDepth", "mm", {-1e5, 1e5, 0}, &DayPlan::water,
                    &WaterPlan::depth_mm);
}

/// The rack's, where it knows one.
NumberLine lengthLine() {
  return {QObject::tr("Length of the shortest"),
          "bodyLength",
          "mm",
          {0.0, 1e5, 0},
          [](const DayPlan& p) { return filmingOf(p).bodyLength_mm; },
          [](DayPlan& p, double v) { p.filming.bodyLength_mm = v; }};
}

QString title(const std::string& key) {
  if (key == "size") return QObject::tr("Size in the picture");
  if (key == "samples") return QObject::tr("Frames to a wobble");
  if (key == "blur") return QObject::tr("Smear of a mark");
  if (key == "cycles") return QObject::tr("Wobbles in view");
  if (key == "plane") return QObject::tr("Ruler off the lure's plane");
  if (key == "depth") return QObject::tr("Depth for a steady fall");
  return QObject::tr("Mains light");
}

/// By word and by shape, not by colour alone.
QString verdictWord(Fitness f) {
  return f == Fitness::Good    ? QObject::tr("●●●  good")
         : f == Fitness::Tight ? QObject::tr("●●○  tight")
                               : QObject::tr("●○○  will not do");
}

QFrame* findingCard(const FilmingFinding& f) {
  auto* box = card();
  box->setObjectName("finding_" + QString::fromStdString(f.key));
  auto* layout = new QGridLayout(box);
  layout->setContentsMargins(12, 7, 12, 7);
  layout->setVerticalSpacing(1);
  layout->addWidget(headingLabel(title(f.key)), 0, 0);
  auto* word = new QLabel(verdictWord(f.fitness));
  word->setProperty("trouble", f.fitness == Fitness::Bad);
  layout->addWidget(word, 0, 1, Qt::AlignRight);
  auto* value = new QLabel(QString("%1 %2").arg(f.value, 0, 'g', 3).arg(QString::fromStdString(f.unit)));
  layout->addWidget(value, 1, 0);
  layout->addWidget(faintLabel(QString::fromStdString(f.verdict)), 2, 0, 1, 2);
  if (!f.change.empty()) {
    auto* change =
        new QLabel(QObject::tr("<b>Change:</b> %1").arg(QString::fromStdString(f.change).toHtmlEscaped()));
    change->setTextFormat(Qt::RichText);
    change->setWordWrap(true);
    layout->addWidget(change, 3, 0, 1, 2);
  }
  return box;
}

}  // namespace

FilmingPage::FilmingPage(DayController& controller, QWidget* parent)
    : QWidget(parent), controller_(controller), findings_(new QScrollArea) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(20);
  auto* left = new QVBoxLayout;
  left->setSpacing(4);
  const UnitBox::Range length{0.0, 1e5, 0};
  const auto part = [&](const QString& heading, const std::vector<NumberLine>& lines) {
    left->addWidget(headingLabel(heading));
    auto* grid = new QGridLayout;
    grid->setVerticalSpacing(3);
    addNumbers(*grid, controller, lines, *this);
    left->addLayout(grid);
  };
  part(tr("The camera"),
       {line(tr("Air to the window"), "air", "mm", length, &FilmingPlan::air_mm),
        line(tr("Glass"), "glass", "mm", length, &FilmingPlan::glass_mm),
        line(tr("Water to the lure"), "waterPath", "mm", length, &FilmingPlan::water_mm),
        line(tr("Field of view, in air"), "fieldOfView", "deg", {0.0, 180.0, 0},
             &FilmingPlan::fieldOfView_deg),
        widthLine(),
        line(tr("Frames per second"), "captureRate", "1/s", {0.0, 1e5, 0}, &FilmingPlan::captureRate_Hz),
        exposureLine(),
        line(tr("Mains light"), "mains", "Hz, 0 for none", {0.0, 100.0, 0}, &FilmingPlan::mains_Hz)});
  part(tr("The lure, at its fastest"),
       {lengthLine(), line(tr("Smallest mark"), "markWidth", "mm", {0.0, 1000.0, 1}, &FilmingPlan::mark_mm),
        line(tr("Pull"), "pullSpeed", kPullSpeed.data(), length, &FilmingPlan::pullSpeed_mm_s),
        line(tr("Wobbles per second"), "wobbleRate", "1/s", {0.0, 1000.0, 1}, &FilmingPlan::wobble_Hz),
        line(tr("Fall"), "fallRate", "mm/s", length, &FilmingPlan::fallRate_mm_s),
        line(tr("Time to settle"), "timeConstant", "s", {0.0, 100.0, 2}, &FilmingPlan::timeConstant_s)});
  part(tr("The tank"),
       {depthLine(), line(tr("Steady fall wanted"), "steadyPart", "mm", length, &FilmingPlan::steadyPart_mm),
        line(tr("Ruler off the plane"), "rulerOff", "mm", {-1e5, 1e5, 0}, &FilmingPlan::rulerOff_mm)});
  left->addStretch();
  row->addLayout(left, 2);
  auto* right = new QVBoxLayout;
  right->addWidget(headingLabel(tr("What this set-up can show")));
  findings_->setWidgetResizable(true);
  right->addWidget(findings_, 1);
  if (QWidget* lines = cautionLines(Step::Cameras)) right->addWidget(lines);
  row->addLayout(right, 3);
  connect(&controller, &DayController::planChanged, this, &FilmingPage::refresh);
  refresh();
}

void FilmingPage::refresh() {
  auto* content = new QWidget;
  auto* layout = new QVBoxLayout(content);
  layout->setContentsMargins(0, 0, 6, 0);
  layout->setSpacing(6);
  const auto found = checkFilming(filmingOf(controller_.plan()), controller_.plan().water.state().salinity);
  if (found) {
    // What will not do comes first.
    for (Fitness f : {Fitness::Bad, Fitness::Tight, Fitness::Good}) {
      for (const FilmingFinding& finding : *found) {
        if (finding.fitness == f) layout->addWidget(findingCard(finding));
      }
    }
  } else {
    auto* why = new QLabel(QString::fromStdString(found.error().message));
    why->setObjectName("filmingTrouble");
    why->setProperty("trouble", true);
    why->setWordWrap(true);
    layout->addWidget(why);
  }
  layout->addStretch();
  findings_->setWidget(content);
  enableOr(*findChild<UnitBox*>("bodyLength"), !shortestLure_mm(controller_.plan().rack),
           tr("The shortest lure of the rack. Change its length there."));
}

}  // namespace fin::app
