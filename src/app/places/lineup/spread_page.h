// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QListWidget>
#include <QWidget>

#include "app/controllers/line_up.h"
#include "app/controllers/verdict_controller.h"
#include "app/plots/pair_matrix.h"
#include "app/plots/spread_plot.h"

class QCustomPlot;

namespace fin::app {

/// One reading over all passes: in one sentence who is highest and who lowest, each pass a point, each rig's
/// mean with its interval, bars over those that cannot be told apart, and any two rigs in a small matrix. Of
/// a reading in words how many passes of how many.
class SpreadPage : public QWidget {
  Q_OBJECT

 public:
  SpreadPage(LineUp& lineUp, VerdictController& verdict, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);
  void showReading(ReadingId reading);

 signals:
  void passWanted(PassId pass);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void refresh();
  void fillSpeeds();
  void showWorth(ReadingId reading);
  void keepWorth(double shown);
  void showChosen();
  void show(ReadingId reading);
  void showClasses(ReadingId reading);
  void showDrift(ReadingId reading, const Adjusted& adjusted);
  [[nodiscard]] QStringList commonWords(const QStringList& differences) const;
  void showPairs(const Spread& spread, ReadingId reading);
  void listPasses(const Spread& spread, const std::vector<ComparedRig>& rigs, const ShownUnit& unit);
  [[nodiscard]] PassId passAt(QPointF at) const;
  /// Where a pass's numbers came from, in words.
  [[nodiscard]] QString originOf(PassId pass) const;

  LineUp& lineUp_;
  VerdictController& verdict_;
  UnitSystem units_ = UnitSystem::Metric;
  QListWidget* choice_;
  QLabel* heading_;
  QComboBox* speed_;
  QDoubleSpinBox* worth_;
  QLabel* headline_;
  QLabel* words_;
  QCustomPlot* plot_;
  PairMatrix* matrix_;
  QLabel* drift_;
  QListWidget* passes_;
  std::vector<SpreadPoint> points_;
};

}  // namespace fin::app
