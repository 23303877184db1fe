// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>

#include "app/places/verdict/box_page.h"
#include "app/places/verdict/catches_page.h"
#include "app/places/verdict/judged_page.h"
#include "app/places/verdict/purpose_page.h"
#include "app/places/verdict/report_page.h"
#include "app/places/verdict/score_page.h"
#include "app/places/verdict/together_page.h"
#include "app/places/verdict/vote_page.h"
#include "app/ui/page_tabs.h"

namespace fin::app {

/// The day decided: by places, by points, by purpose, against the price; what goes together; the report.
class VerdictPlace : public QWidget {
  Q_OBJECT

 public:
  enum class Page { Places, Points, Purpose, Price, Judged, Vote, Together, Catches, Box, Report };

  VerdictPlace(VerdictController& controller, LineUp& lineUp, WaterController& water,
               QWidget* parent = nullptr);
  void go(Page page) { pages_->go(static_cast<int>(page)); }
  [[nodiscard]] QString pageTitle() const { return pages_->pageTitle(); }
  void setUnits(UnitSystem units);
  /// Begins with what came of a day on the water.
  void showCatches();
  [[nodiscard]] VotePage& vote() { return *vote_; }
  [[nodiscard]] ReportPage& report() { return *report_; }
  [[nodiscard]] const VerdictController& controller() const { return controller_; }
  [[nodiscard]] const ActionTable& actions() const { return judged_->actions(); }

 signals:
  void readingWanted(ReadingId reading);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  VerdictController& controller_;
  LineUp& lineUp_;
  PageTabs* pages_;
  std::vector<ScorePage*> scores_;
  PurposePage* purposes_;
  JudgedPage* judged_;
  VotePage* vote_;
  TogetherPage* together_;
  CatchesPage* catches_;
  BoxPage* box_;
  ReportPage* report_;
};

}  // namespace fin::app
