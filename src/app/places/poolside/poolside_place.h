// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

#include "app/controllers/incoming_clips.h"
#include "app/places/poolside/film_next_bar.h"
#include "app/places/poolside/incoming_panel.h"
#include "app/places/poolside/now_panel.h"
#include "app/places/poolside/pacer_panel.h"
#include "app/places/poolside/run_list.h"
#include "app/places/poolside/running_page.h"
#include "app/ui/actions.h"

namespace fin::app {

/// The day at the water. On a test day the pass to make now, the beat, and every clip brought to its pass; on
/// the water the running page.
class PoolsidePlace : public QWidget {
  Q_OBJECT

 public:
  PoolsidePlace(DayController& day, PassController& passes, const VerdictController& verdict,
                WaterController& water, QWidget* parent = nullptr);
  [[nodiscard]] IncomingPanel& incoming() { return *incoming_; }
  [[nodiscard]] PacerPanel& pacer() { return *pacer_; }
  [[nodiscard]] FolderWatch& watch() { return clips_.watch(); }
  [[nodiscard]] const ActionTable& actions() const { return actions_; }
  [[nodiscard]] RunningPage& running() { return *running_; }

 signals:
  void planWanted();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void fillActions();

  IncomingClips clips_;
  NowPanel* now_;
  PacerPanel* pacer_;
  RunList* list_;
  IncomingPanel* incoming_;
  FilmNextBar* next_;
  RunningPage* running_;
  ActionTable actions_;
};

}  // namespace fin::app
