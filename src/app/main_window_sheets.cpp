// SPDX-License-Identifier: GPL-3.0-or-later
// What lies over the places: keys, days, settings, and the guide beside them.
#include <algorithm>

#include "app/main_window.h"
#include "app/places/days_sheet.h"
#include "app/places/guide_window.h"
#include "app/places/keys_sheet.h"
#include "app/places/settings_sheet.h"
#include "app/ui/settings.h"
#include "app/ui/shipped.h"

namespace fin::app {

/// Those of the place that is seen come first.
std::vector<std::pair<const ActionTable*, Place>> MainWindow::actionTables() const {
  // A day on the water has other keys.
  const ActionTable& atThePool = water_->onTheWater() ? poolside_->running().actions() : poolside_->actions();
  std::vector<std::pair<const ActionTable*, Place>> out{{&bench_->actions(), Place::Bench},
                                                        {&atThePool, Place::Poolside},
                                                        {&lookPlace_->actions(), Place::LookThrough},
                                                        {&verdict_->actions(), Place::Verdict}};
  for (const ActionTable* table : lineUp_->actions()) out.emplace_back(table, Place::LineUp);
  std::stable_partition(out.begin(), out.end(), [this](const auto& one) {
    return places_->currentIndex() == static_cast<int>(one.second);
  });
  return out;
}

void MainWindow::toggleKeySheet() {
  if (sheet_->content() != nullptr) return sheet_->away();
  const auto places = actionTables();
  std::vector<const ActionTable*> tables;
  for (const auto& [table, place] : places) {
    if (place != this->place() && std::find(tables.begin(), tables.end(), &everywhere_) == tables.end())
      tables.push_back(&everywhere_);
    tables.push_back(table);
  }
  const auto run = [this, places](const ActionTable& table, const Action& action) {
    sheet_->away();
    for (const auto& [one, place] : places) {
      if (one == &table) go(place);
    }
    action.run();
  };
  auto* keys = new KeysSheet(tables, run);
  sheet_->put(keys, &keys->words());
}

void MainWindow::showGuide() {
  if (guide_ == nullptr) {
    guide_ = new GuideWindow(QString::fromStdString((shipped("docs") / "guide").string()), this);
    connect(guide_, &GuideWindow::keysWanted, this, [this] {
      activateWindow();
      if (sheet_->content() == nullptr) toggleKeySheet();
    });
  }
  QString page;
  if (place() == Place::Plan) page = plan_->pageTitle();
  if (place() == Place::LineUp) page = lineUp_->pageTitle();
  if (place() == Place::Verdict) page = verdict_->pageTitle();
  if (place() == Place::Poolside && water_->onTheWater()) page = tr("The running page");
  guide_->open(guide_->whereOf(place(), page));
  guide_->show();
  guide_->raise();
  guide_->activateWindow();
}

void MainWindow::showDays() {
  auto* days = new DaysSheet(*day_, *controller_, *lineUpModel_);
  connect(days, &DaysSheet::done, this, [this] { sheet_->away(); });
  sheet_->put(days, &days->list());
}

void MainWindow::showSettings() {
  auto* settings = new SettingsSheet;
  connect(settings, &SettingsSheet::thresholdsForAll, controller_,
          [this] { controller_->useThresholds(Settings::all().thresholds()); });
  sheet_->put(settings, settings->first());
}

}  // namespace fin::app
