// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QTableWidget>

#include "app/controllers/water_controller.h"
#include "app/phrases/water_words.h"

namespace fin::app {

/// Which rig the noted water speaks for, by anglers' opinions: an order with what is known and what may be,
/// the reasons, the rules that are awake or asleep, and the schools as switches.
class TieOnPage : public QWidget {
  Q_OBJECT

 public:
  explicit TieOnPage(WaterController& water, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildSchools();
  QWidget* buildRules();
  void refresh();
  void showReasons();
  [[nodiscard]] UnitSystem units() const { return water_.days().units(); }

  WaterController& water_;
  TieOn result_;
  QLabel* headline_;
  QLabel* words_;
  QTableWidget* rigs_;
  QLabel* chosen_;
  QLabel* reasons_;
  QListWidget* rules_;
  struct Switch {
    SchoolSide one;
    SchoolSide other;
    QComboBox* box = nullptr;
  };
  std::vector<Switch> schools_;
};

}  // namespace fin::app
