// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QButtonGroup>
#include <QLineEdit>
#include <QListView>
#include <QStackedWidget>

#include "app/controllers/log_book.h"
#include "app/controllers/verdict_controller.h"
#include "app/places/log/day_page.h"
#include "app/places/log/found_list.h"
#include "app/places/log/log_choice.h"
#include "app/places/log/model_page.h"
#include "app/places/log/season_line.h"
#include "app/places/log/this_log_page.h"

namespace fin::app {

/// Where everything is found again: the season on a line, one field to find by, and a page for each model,
/// day and water.
class LogPlace : public QWidget {
  Q_OBJECT

 public:
  /// All must outlive it.
  LogPlace(LogBook& book, const VerdictController& verdict, const WaterController& water,
           const std::filesystem::path& file, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  [[nodiscard]] LogChoice& choice() { return *choice_; }
  [[nodiscard]] ThisLogPage& thisLog() { return *thisLog_; }

 signals:
  void passWanted(PassId pass);
  void logChanged();

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildFinding();
  void refresh();
  void showSeason(DayId chosen);
  void find();
  void showFound(const QModelIndex& index);
  void showThing(Findable::Kind kind, std::int64_t id);
  void addWater();

  LogBook& book_;
  SeasonLine* season_;
  QLineEdit* words_;
  QButtonGroup* kinds_;
  QListView* list_;
  FoundModel* found_;
  QStackedWidget* pages_;
  ModelPage* model_;
  DayPage* day_;
  WaterBodyPage* water_;
  LogChoice* choice_;
  ThisLogPage* thisLog_;
  QLabel* unfinished_;
  std::optional<std::pair<Findable::Kind, std::int64_t>> shown_;
};

}  // namespace fin::app
