// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

#include "app/controllers/water_controller.h"
#include "app/phrases/water_words.h"

namespace fin::app {

/// What the water is like: the seven things that are enough, noted within a minute, the rest below them, and
/// all that was noted so far. A change is a new line.
class ConditionsPage : public QWidget {
  Q_OBJECT

 public:
  explicit ConditionsPage(WaterController& water, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildFields(bool enough);
  QWidget* buildNoted();
  void take(Condition what, const QString& typed);
  void refresh();
  [[nodiscard]] UnitSystem units() const { return water_.days().units(); }

  WaterController& water_;
  struct Field {
    Condition what{};
    QComboBox* box = nullptr;
    QLabel* unit = nullptr;
  };
  std::vector<Field> fields_;
  QLabel* trouble_;
  QListWidget* noted_;
  QPushButton* takeBack_;
  QLabel* opposed_;
  QLabel* cautions_;
};

}  // namespace fin::app
