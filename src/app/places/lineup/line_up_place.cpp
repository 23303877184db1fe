// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/line_up_place.h"

#include <QShowEvent>

#include "app/controllers/pass_controller.h"

namespace fin::app {

LineUpPlace::LineUpPlace(EyeController& eye, EarController& ear, LineUp& lineUp, VerdictController& verdict,
                         QWidget* parent)
    : PageTabs(parent),
      lineUp_(lineUp),
      studied_(lineUp),
      inStep_(new InStepPage(lineUp, studied_, verdict)),
      overlay_(new OverlayPage(lineUp, studied_)),
      spread_(new SpreadPage(lineUp, verdict)),
      ladder_(new LadderPage(lineUp)),
      depth_(new DepthPage(lineUp)),
      weight_(new WeightPage(lineUp)),
      eye_(new EyePage(eye, lineUp)),
      ear_(new EarPage(ear, lineUp)) {
  addPage(tr("In step"), "pageInStep", inStep_);
  addPage(tr("Laid over"), "pageOverlay", overlay_);
  addPage(tr("Passes compared"), "pageSpread", spread_);
  addPage(tr("Ladder of speeds"), "pageLadder", ladder_);
  addPage(tr("Depth against speed"), "pageDepth", depth_);
  addPage(tr("Another weight"), "pageWeight", weight_);
  addPage(tr("By eye"), "pageEye", eye_);
  addPage(tr("By ear"), "pageEar", ear_);
  go(Page::Spread);
  connect(spread_, &SpreadPage::passWanted, this, &LineUpPlace::passWanted);
}

void LineUpPlace::showReading(ReadingId reading) {
  const bool ladder = isOfLadder(reading);
  go(ladder ? Page::Ladder : Page::Spread);
  if (!ladder) spread_->showReading(reading);
}

std::vector<const ActionTable*> LineUpPlace::actions() const {
  std::vector<const ActionTable*> out{&inStep_->actions(), &eye_->actions()};
  if (eye_->isVisible()) std::swap(out.front(), out.back());
  return out;
}

void LineUpPlace::setUnits(UnitSystem units) {
  inStep_->setUnits(units);
  overlay_->setUnits(units);
  spread_->setUnits(units);
  ladder_->setUnits(units);
  depth_->setUnits(units);
  weight_->setUnits(units);
  eye_->setUnits(units);
}

void LineUpPlace::showEvent(QShowEvent* event) {
  lineUp_.refresh();
  QWidget::showEvent(event);
}

}  // namespace fin::app
