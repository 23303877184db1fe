// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDoubleSpinBox>
#include <QLabel>
#include <QListWidget>
#include <QSpinBox>
#include <QTableWidget>

#include "app/controllers/verdict_controller.h"
#include "app/controllers/water_controller.h"

namespace fin::app {

/// What goes into the box: the fewest lures for the ticked purposes, or the best for so many slots; what to
/// buy first; and how many spares.
class BoxPage : public QWidget {
  Q_OBJECT

 public:
  BoxPage(WaterController& water, const VerdictController& verdict, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildWanted();
  void fillPurposes();
  void refresh();
  void fillSpares();
  [[nodiscard]] std::vector<std::size_t> ticked() const;

  WaterController& water_;
  const VerdictController& verdict_;
  QListWidget* purposes_;
  QSpinBox* slots_;
  QDoubleSpinBox* loss_;
  QSpinBox* hours_;
  QLabel* headline_;
  QLabel* words_;
  QTableWidget* covered_;
  QTableWidget* spares_;
};

}  // namespace fin::app
