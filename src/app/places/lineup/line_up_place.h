// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/places/lineup/depth_page.h"
#include "app/places/lineup/ear_page.h"
#include "app/places/lineup/eye_page.h"
#include "app/places/lineup/in_step_page.h"
#include "app/places/lineup/ladder_page.h"
#include "app/places/lineup/overlay_page.h"
#include "app/places/lineup/spread_page.h"
#include "app/places/lineup/weight_page.h"
#include "app/ui/page_tabs.h"

namespace fin::app {

/// Many passes beside each other: what differs, where each rig works, and what another weight would do.
class LineUpPlace : public PageTabs {
  Q_OBJECT

 public:
  enum class Page { InStep, Overlay, Spread, Ladder, Depth, Weight, Eye, Ear };

  LineUpPlace(EyeController& eye, EarController& ear, LineUp& lineUp, VerdictController& verdict,
              QWidget* parent = nullptr);
  void go(Page page) { PageTabs::go(static_cast<int>(page)); }
  /// The passes with this reading beside each other.
  void showReading(ReadingId reading);
  void setUnits(UnitSystem units);
  [[nodiscard]] InStepPage& inStep() { return *inStep_; }
  [[nodiscard]] EyePage& eye() { return *eye_; }
  [[nodiscard]] EarPage& ear() { return *ear_; }
  [[nodiscard]] OverlayPage& overlay() { return *overlay_; }
  [[nodiscard]] StudiedPasses& studied() { return studied_; }
  /// Those of its pages that have any; the first one's is what is seen, if that has.
  [[nodiscard]] std::vector<const ActionTable*> actions() const;

 signals:
  void passWanted(PassId pass);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  LineUp& lineUp_;
  StudiedPasses studied_;
  InStepPage* inStep_;
  OverlayPage* overlay_;
  SpreadPage* spread_;
  LadderPage* ladder_;
  DepthPage* depth_;
  WeightPage* weight_;
  EyePage* eye_;
  EarPage* ear_;
};

}  // namespace fin::app
