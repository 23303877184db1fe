// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QListWidget>

#include "app/controllers/log_book.h"
#include "app/controllers/verdict_controller.h"
#include "app/controllers/water_controller.h"
#include "app/places/log/model_tables.h"
#include "app/ui/page_tabs.h"

class QCustomPlot;

namespace fin::app {

/// A model over all days: its readings with how they went, what is claimed of it and whether that was kept,
/// its pieces, its prices, how it was judged, and what was caught on it.
class ModelPage : public QWidget {
  Q_OBJECT

 public:
  ModelPage(LogBook& book, const VerdictController& verdict, const WaterController& water,
            QWidget* parent = nullptr);
  void show(ModelId model);
  void setUnits(UnitSystem units);

 private:
  QWidget* buildReadings();
  void refresh();
  void fillReadings();
  void drawHistory();
  void fillJudged();
  void fillCatches();
  [[nodiscard]] const Model* model() const;
  [[nodiscard]] QString historyInWords(const RigHistory& history) const;
  [[nodiscard]] QString waterShiftInWords(const RigHistory& history) const;
  [[nodiscard]] QString wearInWords(const RigHistory& history) const;

  LogBook& book_;
  const VerdictController& verdict_;
  const WaterController& water_;
  ModelId model_;
  UnitSystem units_ = UnitSystem::Metric;
  LogBook::ModelRecord record_;
  QLabel* photo_;
  QLabel* name_;
  QLabel* facts_;
  PageTabs* tabs_;
  QListWidget* readings_;
  QLabel* sentence_;
  QCustomPlot* plot_;
  ClaimsTable* claims_;
  PiecesTable* pieces_;
  PricesTable* prices_;
  QLabel* judged_;
  QLabel* catches_;
};

}  // namespace fin::app
