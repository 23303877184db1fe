// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/verdict/verdict_place.h"

#include <QVBoxLayout>

namespace fin::app {

VerdictPlace::VerdictPlace(VerdictController& controller, LineUp& lineUp, WaterController& water,
                           QWidget* parent)
    : QWidget(parent),
      controller_(controller),
      lineUp_(lineUp),
      pages_(new PageTabs),
      purposes_(new PurposePage(controller)),
      judged_(new JudgedPage(controller)),
      vote_(new VotePage(controller)),
      together_(new TogetherPage(controller)),
      catches_(new CatchesPage(water)),
      box_(new BoxPage(water, controller)),
      report_(new ReportPage(controller)) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(0);
  layout->addWidget(pages_, 1);
  const auto score = [&](ScorePage::School school) {
    scores_.push_back(new ScorePage(controller, school));
    connect(scores_.back(), &ScorePage::readingWanted, this, &VerdictPlace::readingWanted);
    return scores_.back();
  };
  pages_->addPage(tr("By places"), "verdictPlaces", score(ScorePage::School::Places));
  pages_->addPage(tr("By points"), "verdictPoints", score(ScorePage::School::Points));
  pages_->addPage(tr("What for"), "verdictPurpose", purposes_);
  pages_->addPage(tr("Against the price"), "verdictPrice", score(ScorePage::School::Price));
  pages_->addPage(tr("Judged"), "verdictJudged", judged_);
  pages_->addPage(tr("Vote"), "verdictVote", vote_);
  pages_->addPage(tr("Pulled together"), "verdictTogether", together_);
  pages_->addPage(tr("Catches"), "verdictCatches", catches_);
  pages_->addPage(tr("Box"), "verdictBox", box_);
  pages_->addPage(tr("Report"), "verdictReport", report_);
}

void VerdictPlace::setUnits(UnitSystem units) {
  for (ScorePage* page : scores_) page->setUnits(units);
  purposes_->setUnits(units);
  together_->setUnits(units);
  report_->setUnits(units);
}

void VerdictPlace::showCatches() {
  go(Page::Catches);
}

void VerdictPlace::showEvent(QShowEvent* event) {
  lineUp_.refresh();
  QWidget::showEvent(event);
}

}  // namespace fin::app
