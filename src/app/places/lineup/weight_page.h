// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QWidget>

#include "app/controllers/line_up.h"
#include "app/ui/unit_box.h"
#include "core/planning/weight_study.h"

namespace fin::app {

/// A measured fall, and how the rig would fall with other weights or in other water. Where a second rig of
/// the model was measured the prediction is held against it, and the body is weighed without scales.
class WeightPage : public QWidget {
  Q_OBJECT

 public:
  explicit WeightPage(LineUp& lineUp, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 private:
  /// Weights in the order of the form's rows: head, hook, insert, body in water.
  using Weights = std::array<UnitBox*, 4>;

  QWidget* buildForm();
  UnitBox* addBox(QGridLayout& grid, int row, int column, const QString& name, const char* objectName,
                  const char* unit, UnitBox::Range range);
  void refresh();
  void choose();
  void answer();
  void fillCountdown(const WeightAnswer& answer);
  [[nodiscard]] const MeasuredFall* chosen() const;
  [[nodiscard]] WeightQuestion question(const MeasuredFall& fall) const;
  [[nodiscard]] QString heldAgainst(const MeasuredFall& fall) const;
  [[nodiscard]] QString wantedHead(const WeightQuestion& question) const;
  [[nodiscard]] std::vector<HeadFall> heads() const;
  void weighByHeads();
  [[nodiscard]] QString hangs(const WeightQuestion& question, const WeightAnswer& answer) const;
  [[nodiscard]] QString hangDoubt(const HangWindow& window) const;
  [[nodiscard]] QString kicks() const;
  [[nodiscard]] QString speed(double mm_s, double u95) const;

  LineUp& lineUp_;
  UnitSystem units_ = UnitSystem::Metric;
  std::vector<MeasuredFall> falls_;
  ModelId model_ = 0;  ///< of the rig in the form
  QComboBox* rig_;
  QLabel* measured_;
  Weights before_{};
  Weights after_{};
  UnitBox* salinity_ = nullptr;
  UnitBox* temperature_ = nullptr;
  UnitBox* wanted_ = nullptr;
  QLabel* answer_;
  QLabel* words_;
  QLabel* fromHeads_ = nullptr;
  QPushButton* useBody_ = nullptr;
  double foundBody_g_ = 0.0;
  QWidget* amounts_ = nullptr;  ///< shown where there is a fall to change
  QLabel* countdownHeading_ = nullptr;
  QTableWidget* countdown_;
};

}  // namespace fin::app
