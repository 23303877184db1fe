// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QTableWidget>
#include <QWidget>

#include "app/controllers/verdict_controller.h"
#include "app/places/verdict/wish_editor.h"

class QCustomPlot;

namespace fin::app {

/// The day's rigs in order by one school, what counts beside it, and how firm the order is.
class ScorePage : public QWidget {
  Q_OBJECT

 public:
  enum class School { Places, Points, Price };
  ScorePage(VerdictController& controller, School school, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 signals:
  /// What lies behind a column is to be seen.
  void readingWanted(ReadingId reading);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildLeft();
  void refresh();
  void fillTable(const ScoreTable& table, const Ranking& ranking);
  void fillRow(int row, const ScoreTable& table, std::size_t entry, const Placing* placing);
  void drawPrices(const ScoreTable& table, const Ranking& ranking);
  [[nodiscard]] RankOptions options() const;

  VerdictController& controller_;
  School school_;
  UnitSystem units_ = UnitSystem::Metric;
  WishEditor* wishes_;
  QComboBox* basis_;
  QLabel* first_;
  QLabel* firmness_;
  QTableWidget* table_;
  QCustomPlot* prices_ = nullptr;
  QLabel* words_;
};

}  // namespace fin::app
